import { useState } from 'react'
import { tellFault } from '../common/tell'

/** A share as a field of per cent. */
export function ShareField({
  name,
  value,
  onAccept,
}: {
  name: string
  value: number
  onAccept: (value: number) => boolean
}) {
  const [typed, setTyped] = useState<string | null>(null)
  const accept = () => {
    if (typed === null) return
    const read = Number(typed.replace(/[%\s]/g, '').replace(',', '.'))
    if (!(read >= 0 && read <= 100)) {
      tellFault(`"${typed}" is no share. Type, for example, 5 %.`)
      return
    }
    if (Math.abs(read / 100 - value) < 1e-9 || onAccept(read / 100)) setTyped(null)
  }
  return (
    <input
      aria-label={name}
      className="input input-sm w-full px-1.5 text-right font-semibold"
      value={typed ?? `${Math.round(value * 1e4) / 100} %`}
      onFocus={(e) => e.currentTarget.select()}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={accept}
      onKeyDown={(e) => {
        if (e.key === 'Enter') e.currentTarget.blur()
        if (e.key === 'Escape') {
          setTyped(null)
          e.stopPropagation()
        }
      }}
    />
  )
}
