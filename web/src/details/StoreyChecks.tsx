import { showNumber } from '@geotome/core/project'
import { useProject } from '../app/hooks'

/** Storeys to be ticked, from the highest down. */
export function StoreyChecks({
  label,
  storeys,
  isIn,
  isFixed = () => false,
  onToggle,
}: {
  label: string
  storeys: readonly { id: string; name: string; height: number }[]
  isIn: (id: string) => boolean
  /** those whose tick stays */ isFixed?: (id: string) => boolean
  onToggle: (id: string) => void
}) {
  const { project } = useProject()
  return (
    <ul aria-label={label} className="mb-1.5 max-h-44 overflow-auto rounded-md border border-line bg-field px-2.5 py-1">
      {[...storeys].reverse().map((l) => (
        <li key={l.id}>
          <label className="flex cursor-pointer items-center justify-between py-[3px]">
            <span>
              {l.name} <span className="text-ink2">{showNumber(l.height, 'length', project)}</span>
            </span>
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              checked={isIn(l.id)}
              disabled={isFixed(l.id)}
              onChange={() => onToggle(l.id)}
            />
          </label>
        </li>
      ))}
    </ul>
  )
}
