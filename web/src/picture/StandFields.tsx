import { levelHeights } from '@geotome/core/levels'
import type { Stand } from '@geotome/core/picture'
import { useProject } from '../app/hooks'
import { ChoiceField } from '../common/fields'
import { NumField } from '../common/NumField'

export function StandFields({
  stand: s,
  disabled,
  onChange,
  onRemove,
  onLook,
}: {
  stand: Stand
  disabled: boolean
  onChange: (next: Stand) => boolean
  onRemove: () => void
  onLook: () => void
}) {
  const { project, scheme } = useProject()
  const { lies } = s
  const levels = levelHeights(project, scheme)
  const azimuth = lies.kind === 'upright' && typeof lies.azimuth === 'number' ? String(lies.azimuth) : ''
  return (
    <div className="mb-1.5 rounded-md border border-line p-1.5" data-stand={lies.kind}>
      {lies.kind === 'plan' ? (
        <ChoiceField
          label="in plan at"
          value={lies.level ?? ''}
          options={[
            { value: '', label: 'the datum' },
            ...[...levels].reverse().map((l) => ({ value: l.id, label: l.name })),
          ]}
          onChange={(level) => onChange({ ...s, lies: { ...lies, level: level || null } })}
        />
      ) : (
        <>
          <ChoiceField
            label="seen from"
            value={SIDES.some((d) => d.value === azimuth) ? azimuth : 'other'}
            options={[
              ...SIDES,
              ...(SIDES.some((d) => d.value === azimuth) ? [] : [{ value: 'other', label: 'an angle' }]),
            ]}
            onChange={(a) => onChange({ ...s, lies: { ...lies, azimuth: Number(a) } })}
          />
          <div className="grid grid-cols-2 gap-1.5">
            <NumField
              label="at"
              compact
              quantity="angle"
              value={lies.azimuth}
              disabled={disabled}
              onAccept={(a) => onChange({ ...s, lies: { ...lies, azimuth: a } })}
            />
            <NumField
              label="nearer by"
              compact
              value={lies.toward}
              disabled={disabled}
              onAccept={(toward) => onChange({ ...s, lies: { ...lies, toward } })}
            />
          </div>
        </>
      )}
      <p className="flex items-center gap-2.5 text-[11px] text-ink2">
        <label className="flex cursor-pointer items-center gap-1">
          shown
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={s.shown}
            onChange={(e) => onChange({ ...s, shown: e.target.checked })}
          />
        </label>
        <label className="flex cursor-pointer items-center gap-1">
          in front
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={s.front}
            onChange={(e) => onChange({ ...s, front: e.target.checked })}
          />
        </label>
        <span className="flex-1" />
        <button className="cursor-pointer underline" onClick={onLook}>
          look
        </button>
        <button className="cursor-pointer underline" disabled={disabled} onClick={onRemove}>
          take up
        </button>
      </p>
    </div>
  )
}

export const SIDES = [
  { value: '-90', label: 'south' },
  { value: '0', label: 'east' },
  { value: '90', label: 'north' },
  { value: '180', label: 'west' },
]
