import type { ReactNode } from 'react'

export const LinkButton = ({ onClick, children }: { onClick: () => void; children: ReactNode }) => (
  <button className="cursor-pointer text-[12px] text-ink2 underline hover:text-ink" onClick={onClick}>
    {children}
  </button>
)
