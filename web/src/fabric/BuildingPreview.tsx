import { useEffect, useMemo, useRef } from 'react'
import {
  areaSign,
  numbersOf,
  showNumber,
  showQuantity,
  showVolume,
  type BuildUp,
  type PartKind,
} from '@geotome/core/project'
import { buildUpThickness, faceKey, type Choices, type FaceAs } from '@geotome/core/fabric'
import { useBuildUps, useProject, useStudy, useUnit } from '../app/hooks'
import { currentAsk, makeComputedEdit } from '../app/study-loop'
import { useAppDispatch, useAppSelector } from '../app/store'
import { picked, proposed } from '../app/view-slice'
import { ChoiceField, Figure, Section } from '../common/fields'
import { NumField } from '../common/NumField'
import { studyWorker } from '../worker/client'
import type { ProposalView } from '../worker/protocol'
import { ROLES, manyOf } from './roles'

/** What each face would become, with counts and areas, and what is left out and why; nothing is made before it is accepted. */
export function BuildingPreview() {
  const dispatch = useAppDispatch()
  const { scheme } = useProject()
  const nameOf = useMassNames()
  const study = useStudy()
  const asked = useAppSelector((s) => s.view.proposing)
  const offer = study?.proposal
  const button = useRef<HTMLButtonElement>(null)
  const ready = asked !== null && Boolean(offer?.candidates.length)
  // Enter accepts what is offered, as soon as it is, unless something is being typed.
  useEffect(() => {
    if (ready && !document.activeElement?.matches('input, textarea, select'))
      button.current?.focus({ preventScroll: true })
  }, [ready])
  if (!asked) return null
  const change = (fields: Partial<Choices>) =>
    dispatch(proposed({ ...asked, choices: { ...asked.choices, ...fields } }))
  const accept = async () => {
    if (
      await makeComputedEdit(`make ${offer?.candidates.length ?? 0} parts`, () =>
        studyWorker.accept(currentAsk(scheme.id)),
      )
    ) {
      dispatch(proposed(null))
      dispatch(picked({ kind: 'nothing' }))
    }
  }
  return (
    <>
      <Section title="Building from faces">
        <p className="mb-2 text-ink2">
          {asked.masses ? `From ${asked.masses.map(nameOf).join(', ')}` : 'From all masses'}. Nothing is made until you
          accept.
        </p>
        <ChoiceFields choices={asked.choices} change={change} />
      </Section>
      <Offered offer={offer ?? null} />
      {offer && <Faces offer={offer} choices={asked.choices} change={change} />}
      <LeftOut offer={offer ?? null} />
      <div className="sticky -bottom-3.5 -mx-4 -mb-3.5 flex gap-2 border-t border-line bg-panel px-4 py-3">
        <button className="btn btn-sm" onClick={() => dispatch(proposed(null))}>
          Cancel
        </button>
        <button
          ref={button}
          className="btn btn-sm btn-primary flex-1"
          disabled={!offer?.candidates.length}
          onClick={() => void accept()}
        >
          Make {offer?.candidates.length ?? 0} parts
        </button>
      </div>
    </>
  )
}

function ChoiceFields({ choices, change }: { choices: Choices; change: (fields: Partial<Choices>) => void }) {
  const { project, scheme } = useProject()
  const numbers = numbersOf(project, scheme)
  const lists: Record<PartKind, BuildUp[]> = {
    wall: useBuildUps('wall'),
    slab: useBuildUps('slab'),
    roof: useBuildUps('roof'),
    terrace: useBuildUps('terrace'),
    parapet: useBuildUps('parapet'),
  }
  const options = (kind: PartKind) =>
    lists[kind].map((b) => ({ value: b.id, label: `${b.name} (${Math.round(buildUpThickness(b, numbers) * 1000)})` }))
  const none = { value: '', label: 'none: roofs instead' }
  return (
    <>
      <ChoiceField label="walls" value={choices.wall} options={options('wall')} onChange={(wall) => change({ wall })} />
      <ChoiceField
        label="walls lie"
        value={choices.wallSide}
        options={[
          { value: 'inside', label: 'inside the face' },
          { value: 'outside', label: 'outside the face' },
        ]}
        onChange={(wallSide) => change({ wallSide })}
      />
      <ChoiceField
        label="they reach"
        value={choices.reach}
        options={[
          { value: 'storey', label: 'storey by storey' },
          { value: 'through', label: 'through, base to top' },
        ]}
        onChange={(reach) => change({ reach })}
      />
      <ChoiceField
        label="bent faces as"
        value={choices.bent}
        options={[
          { value: 'upright walls', label: 'upright walls' },
          { value: 'facets', label: 'flat facets' },
        ]}
        onChange={(bent) => change({ bent })}
      />
      <ChoiceField label="slabs" value={choices.slab} options={options('slab')} onChange={(slab) => change({ slab })} />
      <ChoiceField label="roofs" value={choices.roof} options={options('roof')} onChange={(roof) => change({ roof })} />
      <ChoiceField
        label="roofs lie"
        value={choices.roofSide}
        options={[
          { value: 'outside', label: 'on the face' },
          { value: 'inside', label: 'under the face' },
        ]}
        onChange={(roofSide) => change({ roofSide })}
      />
      <NumField
        label="roof overhang"
        value={choices.overhang}
        onAccept={(num, overhang) => {
          if (overhang < 0) return false
          change({ overhang: num })
          return undefined
        }}
        hint="Measured level, square to eaves and verge."
      />
      <ChoiceField
        label="terraces"
        value={choices.terrace ?? ''}
        options={[...options('terrace'), none]}
        onChange={(id) => change({ terrace: id || null })}
      />
      {choices.terrace && (
        <ChoiceField
          label="parapets"
          value={choices.parapet ?? ''}
          options={[...options('parapet'), { value: '', label: 'none' }]}
          onChange={(id) => change({ parapet: id || null })}
        />
      )}
      {choices.terrace && choices.parapet && (
        <NumField
          label="parapet height"
          value={choices.rise}
          onAccept={(num, rise) => {
            if (rise <= 0) return false
            change({ rise: num })
            return undefined
          }}
        />
      )}
    </>
  )
}

function Offered({ offer }: { offer: ProposalView | null }) {
  const { project } = useProject()
  const off = Math.max(0, ...(offer?.candidates ?? []).map((c) => c.off ?? 0))
  return (
    <Section title="It would make">
      {ROLES.map((role) => {
        const found = offer?.candidates.filter((c) => c.role === role) ?? []
        return found.length ? (
          <Figure key={role} label={manyOf(role, found.length)}>
            <span data-offer={role}>
              {showNumber(
                found.reduce((s, c) => s + c.area, 0),
                'area',
                project,
              )}{' '}
              {areaSign(project)}
            </span>
          </Figure>
        ) : null
      })}
      {offer && offer.candidates.length === 0 && <p className="text-ink2">Nothing new: every face has its part.</p>}
      {offer && offer.candidates.length > 0 && (
        <Figure label="volume of all parts">{showVolume(offer.volume, project)}</Figure>
      )}
      {off > 0 && (
        <Figure label="off bent faces by up to" tone="warn">
          <span data-off>{showQuantity(off, 'length', project)}</span>
        </Figure>
      )}
      {offer && offer.candidates.length > 0 && (
        <details className="mt-2">
          <summary className="cursor-pointer text-[12px] text-ink2">each part</summary>
          <ul className="mt-1 max-h-48 overflow-auto text-[12px]">
            {offer.candidates.map((c) => (
              <li key={c.key} className="flex justify-between gap-2 py-0.5">
                <span className="truncate">{c.name}</span>
                <span className="shrink-0 text-ink2">
                  {showNumber(c.area, 'area', project)}
                  {c.off ? `, off ${showNumber(c.off, 'length', project)}` : ''}
                  {c.warp ? `, ${showNumber(c.warp, 'length', project)} off flat` : ''}
                </span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </Section>
  )
}

/** Every face with what it becomes; another choice overrules it. */
function Faces({
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
      {[...new Set(offer.faces.map((f) => f.mass))].map((mass) => {
        const faces = offer.faces.filter((f) => f.mass === mass)
        return (
          <details key={mass} className="border-b border-line py-1.5" open={offer.faces.length < 9}>
            <summary className="flex cursor-pointer justify-between gap-2">
              <span className="truncate">{nameOf(mass)}</span>
              <span className="shrink-0 text-ink2">{faces.length} faces</span>
            </summary>
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
          </details>
        )
      })}
    </Section>
  )
}

function LeftOut({ offer }: { offer: ProposalView | null }) {
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
              <li key={why} className="border-b border-line py-1.5 text-[12px]" data-left-out title={r.what.join('\n')}>
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
function useMassNames(): (id: string) => string {
  const study = useStudy()
  return (id) => study?.masses.find((m) => m.id === id)?.name ?? 'a mass that is gone'
}
