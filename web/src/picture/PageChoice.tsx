import { valibotResolver } from '@hookform/resolvers/valibot'
import { useForm } from 'react-hook-form'
import * as v from 'valibot'

/** Which page of a document is taken. */
export function PageChoice({ file, pages, take }: { file: string; pages: number; take: (page: number) => void }) {
  const { register, handleSubmit, formState } = useForm({
    defaultValues: { page: '1' },
    resolver: valibotResolver(
      v.object({
        page: v.pipe(
          v.string(),
          v.trim(),
          v.check(
            (text) => Number.isInteger(Number(text)) && Number(text) >= 1 && Number(text) <= pages,
            ({ input }) => `${file} has ${pages} pages; there is no page ${input}.`,
          ),
        ),
      }),
    ),
  })
  const accept = handleSubmit(({ page }) => take(Number(page)))
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
