import { useState, type ReactNode } from 'react'

/** What is read on demand, and only built then: of a large project it has thousands of lines. */
export function Unfold({
  summary,
  className = '',
  open = false,
  children,
}: {
  summary: ReactNode
  className?: string
  open?: boolean
  children: ReactNode
}) {
  const [isOpen, setOpen] = useState(open)
  return (
    <details className={className} open={isOpen} onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="flex cursor-pointer justify-between gap-2">{summary}</summary>
      {isOpen && children}
    </details>
  )
}
