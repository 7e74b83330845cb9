import { useMemo } from 'react'
import { showQuantity } from '@geotome/core/project'
import { faceKey, type Choices, type FaceAs, type FaceOffer } from '@geotome/core/fabric'
import { useProject, useStudy, useUnit } from '../app/hooks'
import { Section } from '../common/fields'
import { Unfold } from '../common/Unfold'
import type { ProposalView } from '../worker/protocol'

function facesByMass({ faces }: ProposalView): Map<string, FaceOffer[]> {
  const by = new Map<string, FaceOffer[]>()
  for (const face of faces) by.set(face.mass, [...(by.get(face.mass) ?? []), face])
  return by
}

/** Every face with what it becomes; another choice overrules it. */
export function Faces({
  offer,
  choices,
  change,
}: {
  offer: ProposalView
  choices: Choices
  change: (fields: Partial<Choices>) => void
}) {
  const { project } = useProject()
  const nameOf = useMassNames()
  const overruled = Object.keys(choices.overrule).length
  return (
    <Section
      title="Each face"
      aside={
        overruled > 0 && (
          <button className="cursor-pointer text-[11px] text-ink2 underline" onClick={() => change({ overrule: {} })}>
            {overruled} overruled: undo
          </button>
        )
      }
    >
      {[...facesByMass(offer)].map(([mass, faces]) => {
        return (
          <Unfold
            key={mass}
            className="border-b border-line py-1.5"
            open={offer.faces.length < 9}
            summary={
              <>
                <span className="truncate">{nameOf(mass)}</span>
                <span className="shrink-0 text-ink2">{faces.length} faces</span>
              </>
            }
          >
            <ul className="mt-1">
              {faces.map((f) => (
                <li key={f.face} className="flex items-center justify-between gap-2 py-0.5 text-[12px]">
                  <span
                    className="min-w-0 truncate"
                    title={`${f.slope}${f.bent ? ', bent' : ''}, ${showQuantity(f.area, 'area', project)}`}
                  >
                    {f.label}
                    {f.off !== null && <span className="text-warn"> off {showQuantity(f.off, 'length', project)}</span>}
                  </span>
                  <select
                    aria-label={`${nameOf(mass)}, ${f.label} becomes`}
                    className={`shrink-0 cursor-pointer rounded border border-line bg-field px-1 py-0.5 ${choices.overrule[faceKey(mass, f.face)] ? 'font-semibold' : ''}`}
                    value={f.as}
                    onChange={(e) =>
                      change({ overrule: { ...choices.overrule, [faceKey(mass, f.face)]: e.target.value as FaceAs } })
                    }
                  >
                    {[...new Set([f.as, ...f.choices])].map((as) => (
                      <option key={as} value={as}>
                        {as}
                      </option>
                    ))}
                  </select>
                </li>
              ))}
            </ul>
          </Unfold>
        )
      })}
    </Section>
  )
}

export function LeftOut({ offer }: { offer: ProposalView | null }) {
  const unit = useUnit()
  const reasons = useMemo(() => {
    const by = new Map<string, { count: number; area: number; what: string[] }>()
    for (const l of offer?.leftOut ?? []) {
      const r = by.get(l.why) ?? { count: 0, area: 0, what: [] }
      r.count++
      r.area += l.area
      r.what.push(l.what)
      by.set(l.why, r)
    }
    return [...by]
  }, [offer])
  return (
    <>
      {reasons.length > 0 && (
        <Section title="Left out, and why">
          <ul>
            {reasons.map(([why, r]) => (
              <li
                key={why}
                className="border-b border-line py-1.5 text-[12px]"
                data-left-out
                title={r.what.slice(0, 40).join('\n')}
              >
                <b>{r.count}</b>{' '}
                <span className="text-ink2">
                  {r.count === 1 ? r.what[0] : `faces, ${showQuantity(r.area, 'area', unit)}`}: {why}
                </span>
              </li>
            ))}
          </ul>
        </Section>
      )}
      {offer && offer.remarks.length > 0 && (
        <Section title="To look at first">
          <ul>
            {offer.remarks.map((r, i) => (
              <li key={i} className="border-b border-line py-1.5 text-[12px] text-warn" data-remark>
                {r.what}: {r.say}
              </li>
            ))}
          </ul>
        </Section>
      )}
    </>
  )
}

/** The name of a mass, drawn or grown, by its id. */
export function useMassNames(): (id: string) => string {
  const study = useStudy()
  const names = useMemo(() => new Map(study?.masses.map((m) => [m.id, m.name])), [study?.masses])
  return (id) => names.get(id) ?? 'a mass that is gone'
}
