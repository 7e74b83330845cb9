import { useEffect, useRef, type ReactNode } from 'react'

/** A small sheet over the page: Enter accepts, Escape closes. */
export function Dialog({
  title,
  children,
  onClose,
  onAccept,
  accept,
  danger,
  wide,
}: {
  title: string
  children: ReactNode
  onClose: () => void
  onAccept?: () => void
  accept?: string
  danger?: boolean
  wide?: boolean
}) {
  const ref = useRef<HTMLDialogElement>(null)
  useEffect(() => {
    const d = ref.current
    if (d && !d.open) d.showModal()
  }, [])
  return (
    <dialog
      ref={ref}
      aria-label={title}
      className={`m-auto ${wide ? 'w-[720px]' : 'w-[380px]'} rounded-lg border border-line bg-panel p-5 text-ink shadow-xl backdrop:bg-black/25`}
      onClose={onClose}
      onCancel={onClose}
      onKeyDown={(e) => e.stopPropagation()}
    >
      <form
        method="dialog"
        onSubmit={(e) => {
          e.preventDefault()
          onAccept?.()
        }}
      >
        <h2 className="mb-4 text-[15px] font-semibold">{title}</h2>
        {children}
        <div className="mt-5 flex justify-end gap-2">
          <button type="button" className="act" onClick={onClose}>
            {onAccept ? 'Cancel' : 'Close'}
          </button>
          {onAccept && (
            <button type="submit" className={`act ${danger ? 'border-error text-error' : 'act-main'}`}>
              {accept}
            </button>
          )}
        </div>
      </form>
    </dialog>
  )
}
