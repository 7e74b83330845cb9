import type { Picture, Anchor } from '@geotome/core/picture'
import { inOrder, showNumber } from '@geotome/core/values'
import { useProject } from '../app/hooks'
import { Section, ChoiceField } from '../common/fields'
import { NumField } from '../common/NumField'

/** The picture's point that is tied, and what it is tied to. */
export function PinFields({
  picture: p,
  set,
}: {
  picture: Picture
  set: (label: string, fields: Partial<Picture>) => boolean
}) {
  const { project, scheme } = useProject()
  const { to, px } = p.pin
  const masses = inOrder(scheme.masses)
  const circles = inOrder(project.measures).filter((m) => m.kind === 'radius' && m.picture !== p.id)
  const tie = (next: Anchor) => set('tie', { pin: { px, to: next } })
  const kinds: { value: Anchor['kind']; label: string }[] = [
    { value: 'point', label: 'a point' },
    ...(masses.length
      ? [
          { value: 'centre' as const, label: "a mass's centre" },
          { value: 'corner' as const, label: "a mass's corner" },
        ]
      : []),
    ...(circles.length ? [{ value: 'axis' as const, label: "a circle's axis" }] : []),
  ]
  const first = masses[0]?.id ?? ''
  return (
    <Section title="Tied to">
      <ChoiceField
        label="its pin is at"
        value={to.kind}
        options={kinds}
        onChange={(kind) =>
          tie(
            kind === 'point'
              ? { kind, x: 0, y: 0, z: 0 }
              : kind === 'axis'
                ? { kind, measure: circles[0]?.id ?? '' }
                : kind === 'centre'
                  ? { kind, mass: first }
                  : { kind, mass: first, corner: 0 },
          )
        }
      />
      {to.kind === 'point' && (
        <div className="grid grid-cols-3 gap-1.5">
          {(['x', 'y', 'z'] as const).map((k) => (
            <NumField
              key={k}
              label={k}
              name={`pin ${k}`}
              compact
              value={to[k]}
              disabled={p.locked}
              onAccept={(num) => tie({ ...to, [k]: num })}
            />
          ))}
        </div>
      )}
      {(to.kind === 'centre' || to.kind === 'corner') && (
        <ChoiceField
          label="of"
          value={to.mass}
          options={masses.map((m) => ({ value: m.id, label: m.name }))}
          onChange={(mass) => tie({ ...to, mass })}
        />
      )}
      {to.kind === 'corner' && (
        <NumField
          label="corner, counted from 0"
          quantity="number"
          value={to.corner}
          onAccept={(_, v) => {
            if (Number.isInteger(v) && v >= 0) return tie({ ...to, corner: v })
            return false
          }}
        />
      )}
      {to.kind === 'axis' && (
        <ChoiceField
          label="of"
          value={to.measure}
          options={circles.map((m) => ({ value: m.id, label: m.name }))}
          onChange={(measure) => tie({ kind: 'axis', measure })}
        />
      )}
      <p className="px-1 text-[11px] text-ink2">
        the pin is at pixel {showNumber(px[0], 'number', project, 0)}, {showNumber(px[1], 'number', project, 0)}; it is
        set where the picture is calibrated
      </p>
    </Section>
  )
}
