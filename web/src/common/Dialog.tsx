import { useEffect, useRef, type ReactNode } from 'react'

/** what is typed into first */
const FIELD = 'textarea:enabled, input:enabled:not([type=checkbox], [type=radio], [type=file])'

/**
 * A small sheet over the page: Enter accepts, Escape closes. The first field to type into has the focus, or what accepts; where that
 * cannot be taken back (`danger`), what cancels.
 */
export function Dialog({
  title,
  children,
  onClose,
  onAccept,
  accept,
  danger,
  wide,
  className = '',
}: {
  title: string
  children: ReactNode
  onClose: () => void
  onAccept?: () => void
  accept?: string
  danger?: boolean
  wide?: boolean
  className?: string
}) {
  const ref = useRef<HTMLDialogElement>(null)
  useEffect(() => {
    const d = ref.current
    if (!d || d.open) return
    d.showModal()
    const first = d.querySelector<HTMLElement>(FIELD) ?? d.querySelector<HTMLElement>('[type=submit]')
    if (!danger) first?.focus()
  }, [danger])
  return (
    <dialog
      ref={ref}
      aria-label={title}
      className="modal"
      onClose={onClose}
      onCancel={onClose}
      onKeyDown={(e) => e.stopPropagation()}
    >
      <form
        method="dialog"
        className={`modal-box border border-line p-5 text-ink shadow-xl ${wide ? 'max-w-[720px]' : 'max-w-[380px]'} ${className}`}
        onSubmit={(e) => {
          e.preventDefault()
          onAccept?.()
        }}
      >
        <h2 className="mb-4 text-[15px] font-semibold">{title}</h2>
        {children}
        <div className="modal-action mt-5 gap-2">
          <button type="button" className="btn btn-sm" onClick={onClose}>
            {onAccept ? 'Cancel' : 'Close'}
          </button>
          {onAccept && (
            <button type="submit" className={`btn btn-sm ${danger ? 'border-error text-error' : 'btn-primary'}`}>
              {accept}
            </button>
          )}
        </div>
      </form>
    </dialog>
  )
}
