import { valibotResolver } from '@hookform/resolvers/valibot'
import { useForm } from 'react-hook-form'
import * as v from 'valibot'

/** Which page of a document is taken. */
export function PageChoice({ pages, take }: { pages: number; take: (page: number) => void }) {
  const { register, handleSubmit, formState } = useForm({
    defaultValues: { page: '1' },
    resolver: valibotResolver(
      v.object({
        page: v.pipe(
          v.string(),
          v.transform(Number),
          v.integer(`Type a page from 1 to ${pages}.`),
          v.minValue(1, `Type a page from 1 to ${pages}.`),
          v.maxValue(pages, `Type a page from 1 to ${pages}.`),
        ),
      }),
    ),
  })
  const accept = handleSubmit(({ page }) => take(page))
  return (
    <form className="mt-2 text-[12px]" onSubmit={(e) => void accept(e)}>
      <p className="flex items-center gap-1.5">
        page{' '}
        <input
          {...register('page')}
          aria-label="page"
          autoFocus
          className="input input-sm w-14 text-right font-semibold"
        />{' '}
        of {pages}
        <button className="btn btn-sm h-8">Take it</button>
      </p>
      {formState.errors.page && (
        <p role="alert" className="mt-1 text-error">
          {formState.errors.page.message}
        </p>
      )}
    </form>
  )
}
