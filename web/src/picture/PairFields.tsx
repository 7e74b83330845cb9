import type { Pair, PairDoubt } from '@geotome/core/picture'
import { showFine } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { NumField } from '../common/NumField'

export function PairFields({
  pair,
  off,
  doubt,
  several,
  disabled,
  onChange,
  onRemove,
}: {
  pair: Pair
  off: number
  doubt: PairDoubt | null
  several: boolean
  disabled: boolean
  onChange: (fields: Partial<Pair>) => boolean
  onRemove: () => void
}) {
  const { project } = useProject()
  return (
    <div className="mt-1.5 rounded-md border border-line p-1.5">
      <NumField
        label="is"
        compact
        value={pair.length}
        disabled={disabled}
        onAccept={(length) => onChange({ length })}
      />
      <div className="flex items-center justify-between text-[11px] text-ink2">
        <select
          aria-label="it lies"
          className="cursor-pointer bg-transparent"
          disabled={disabled}
          value={pair.lies}
          onChange={(e) => onChange({ lies: e.target.value as Pair['lies'] })}
        >
          {['anyhow', 'level', 'plumb'].map((l) => (
            <option key={l} value={l} className="bg-panel">
              lies {l}
            </option>
          ))}
        </select>
        {several && <span>off by {showFine(off, project)}</span>}
        <button className="cursor-pointer underline" disabled={disabled} onClick={onRemove}>
          remove
        </button>
      </div>
      {doubt && doubt.others !== null && (
        <p className="text-[11px] text-warn">
          It tilts the picture by {doubt.tilt.toFixed(1)}°, the other pairs by {doubt.others.toFixed(1)}°.
        </p>
      )}
    </div>
  )
}
