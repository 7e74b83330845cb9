import { moveMasses } from '@geotome/core/form'
import { showNumber, showVolume, towardSide } from '@geotome/core/project'
import { useProject, useStudy } from '../app/hooks'
import { makeEdit } from '../app/session'
import { Section } from '../common/fields'
import { NumField } from '../common/NumField'
import { useSideLight } from './side-light'

/** By how much a mass is inside or over each limit, and the cubic metres that are over. */
export function FitFigures({ mass }: { mass: string }) {
  const { project } = useProject()
  const fit = useStudy()?.ground.fits[mass]
  if (!fit) return null
  const z = (v: number) => showNumber(Math.abs(v), 'length', project)
  const over = fit.limits.filter((l) => l.over > 1e-4)
  const height = fit.limits.find((l) => l.limit === 'height')
  const side = fit.limits.filter((l) => l.limit === 'setback').sort((a, b) => b.over - a.over)[0]
  const name = (l: (typeof over)[number]) =>
    l.limit === 'height'
      ? 'height limit'
      : `${l.limit === 'slope' ? 'sloping limit' : 'setback'} of the ${l.name ?? ''}`
  return (
    <span className="block text-[12px]" data-fit={mass}>
      {over.map((l) => (
        <span key={name(l)} className="block font-semibold text-warn">
          over the {name(l)} by {z(l.over)}
        </span>
      ))}
      {fit.over > 1e-4 && <span className="block font-semibold text-warn">{showVolume(fit.over, project)} over</span>}
      {over.length === 0 && (
        <span className="block text-ink2">
          inside{height ? `, ${z(height.over)} to spare in height` : ''}
          {side ? `, ${z(side.over)} to the setback of the ${side.name ?? ''}` : ''}
        </span>
      )}
    </span>
  )
}

/** A mass on its site: its distances to all boundaries, each of which can be typed and moves it, and how it stands in the envelope. */
export function OnSite({ mass }: { mass: string }) {
  const { project, scheme } = useProject()
  const study = useStudy()
  const fit = study?.ground.fits[mass]
  const envelope = study?.ground.envelope
  const foot = study?.ground.feet[mass]
  const z = (v: number) => showNumber(v, 'length', project)
  const coverage = study?.ledger.totals.coverage
  if (!fit && !foot) return null
  const move = (side: number, distance: number) => {
    if (!envelope || !fit) return false
    const [dx, dy] = towardSide(
      { ring: envelope.ring, side: envelope.side.map((s) => s - 1) },
      side,
      fit.clear[side] ?? 0,
      distance,
    )
    return makeEdit(`distance to the ${envelope.names[side] ?? 'side'}`, () =>
      moveMasses(project, scheme, [mass], [dx, dy]),
    )
  }
  return (
    <Section title="On the site">
      {fit && (
        <>
          <FitFigures mass={mass} />
          <p className="mt-1 px-1 text-[11px] text-ink2">from the boundary, square to each side</p>
          <div className="mt-0.5">
            {fit.clear.map((d, i) => (
              <SideField key={i} side={i} label={envelope?.names[i] ?? ''} value={d} onAccept={(v) => move(i, v)} />
            ))}
          </div>
          {coverage !== null && coverage !== undefined && (
            <p className="px-1 text-[12px] text-ink2">
              site coverage {study?.pending ? '…' : (coverage * 100).toFixed(1)} %, all masses
            </p>
          )}
        </>
      )}
      {foot && (
        <p className="mt-1 px-1 text-[12px] text-ink2" data-above-ground>
          top above ground: {z(foot.above.lowest)} from the lowest, {z(foot.above.mean)} from the mean,{' '}
          {z(foot.above.highest)} from the highest along its foot
          {foot.beyond > 0.001 ? `; ${(foot.beyond * 100).toFixed(0)} % of the foot lies beyond the survey` : ''}
        </p>
      )}
    </Section>
  )
}

/** The distance to a side, which is lit up in the plan while the field has the focus. */
function SideField({
  side,
  label,
  value,
  onAccept,
}: {
  side: number
  label: string
  value: number
  onAccept: (v: number) => boolean
}) {
  return (
    <div {...useSideLight(side)}>
      <NumField label={label} compact value={value} onAccept={(_, v) => onAccept(v)} />
    </div>
  )
}
