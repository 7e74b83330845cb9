import type { Vec2 } from '@geotome/core/solid'
import { showNumber } from '@geotome/core/project'
import { useUses } from '../app/hooks'
import type { FloorView } from '../worker/protocol'
import { toPane, type View } from './camera'

interface Props { floor: FloorView; z: number; view: View; size: Vec2 }

/** The area on every piece of the floor, of one size at every zoom; labels that would cover one another move apart, the smallest give way. */
export function PlateLabels({ floor, z, view, size }: Props) {
  const uses = useUses()
  const placed: { x: number; y: number; w: number }[] = []
  const labels = [...floor.plates].sort((a, b) => b.area - a.area).flatMap((plate, i) => {
    const text = `${uses.find((u) => u.id === plate.use)?.name ?? ''} ${showNumber(plate.area, 'area', 'm')}`
    const w = text.length * 6.6 + 18
    const [x, y0] = toPane(view, size, [...plate.label, z])
    const y = [0, -24, 24, -48, 48].map((d) => y0 + d).find((at) => placed.every((p) => Math.abs(p.x - x) > (p.w + w) / 2 || Math.abs(p.y - at) > 22))
    if (y === undefined || x < w / 2 + 2 || x > size[0] - w / 2 - 2 || y < 12 || y > size[1] - 12) return []
    placed.push({ x, y, w })
    return [{ key: `${plate.mass}-${i}`, text, x, y, mass: plate.mass }]
  })
  return (
    <div className="pointer-events-none absolute inset-0 overflow-hidden" aria-hidden>
      {labels.map((l) => (
        <div key={l.key} data-label={l.mass} className="absolute left-0 top-0 whitespace-nowrap rounded border border-cut bg-panel px-2 py-px text-[11.5px] font-semibold" style={{ transform: `translate(${l.x}px, ${l.y}px) translate(-50%, -50%)` }}>{l.text}</div>
      ))}
    </div>
  )
}
