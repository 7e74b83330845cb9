import { valibotResolver } from '@hookform/resolvers/valibot'
import { useForm } from 'react-hook-form'
import * as v from 'valibot'
import type { ReactNode } from 'react'

/** One line that adds something by what is typed in it; it is emptied when that could be done. */
export function AddByName({
  label,
  placeholder,
  most = 120,
  add,
  cancel,
  autoFocus,
  className = '',
  field = 'input-sm min-w-0 flex-1',
  button,
}: {
  label: string
  placeholder: string
  /** characters */ most?: number
  add: (text: string) => boolean | Promise<boolean>
  /** Escape */ cancel?: () => void
  autoFocus?: boolean
  className?: string
  field?: string
  /** what stands on the button, how it looks, and what it is called */
  button: { show: ReactNode; className: string; label?: string }
}) {
  const { register, handleSubmit, reset, watch } = useForm({
    defaultValues: { text: '' },
    resolver: valibotResolver(v.object({ text: v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(most)) })),
  })
  const accept = handleSubmit(async ({ text }) => {
    if (await add(text)) reset()
  })
  return (
    <form
      className={`flex gap-1.5 ${className}`}
      onSubmit={(e) => {
        // A form within a dialog's is not the dialog's business.
        e.stopPropagation()
        void accept(e)
      }}
    >
      <input
        {...register('text')}
        autoFocus={autoFocus}
        aria-label={label}
        placeholder={placeholder}
        className={`input ${field}`}
        maxLength={most}
        autoComplete="off"
        onKeyDown={(e) => {
          if (e.key !== 'Escape' || !cancel) return
          e.stopPropagation()
          cancel()
        }}
      />
      <button className={button.className} aria-label={button.label} disabled={!watch('text').trim()}>
        {button.show}
      </button>
    </form>
  )
}
