import { useMemo } from 'react'
import { numbersOf, showNumber } from '@geotome/core/project'
import { buildUpThickness } from '@geotome/core/fabric'
import { useBuildUps, useProject, useStudy } from '../app/hooks'
import { currentAsk, makeComputedEdit } from '../app/study-loop'
import { useAppDispatch, useAppSelector } from '../app/store'
import { picked, proposed } from '../app/view-slice'
import { ChoiceField, Figure, Section } from '../common/fields'
import { NumField } from '../common/NumField'
import { studyWorker } from '../worker/client'

const ROLES = ['wall', 'ground slab', 'floor slab', 'flat roof', 'pitched roof'] as const
const PLURAL: Record<(typeof ROLES)[number], string> = { wall: 'walls', 'ground slab': 'ground slabs', 'floor slab': 'floor slabs', 'flat roof': 'flat roofs', 'pitched roof': 'roof slopes' }

/** What each face would become, with counts and areas, and what is left out and why; nothing is made before it is accepted. */
export function BuildingPreview() {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const study = useStudy()
  const asked = useAppSelector((s) => s.view.proposing)
  const numbers = numbersOf(project, scheme)
  const [walls, slabs, roofs] = [useBuildUps('wall'), useBuildUps('slab'), useBuildUps('roof')]
  const offer = study?.proposal
  const reasons = useMemo(() => {
    const by = new Map<string, { count: number; area: number; what: string[] }>()
    for (const l of offer?.leftOut ?? []) { const r = by.get(l.why) ?? { count: 0, area: 0, what: [] }; r.count++; r.area += l.area; r.what.push(l.what); by.set(l.why, r) }
    return [...by]
  }, [offer])
  if (!asked) return null
  const change = (fields: Partial<typeof asked>) => dispatch(proposed({ ...asked, ...fields }))
  const options = (list: typeof walls) => list.map((b) => ({ value: b.id, label: `${b.name} (${Math.round(buildUpThickness(b, numbers) * 1000)})` }))
  const accept = async () => {
    if (await makeComputedEdit(`make ${offer?.candidates.length ?? 0} parts`, () => studyWorker.accept(currentAsk(scheme.id)))) { dispatch(proposed(null)); dispatch(picked({ kind: 'nothing' })) }
  }
  return (
    <>
      <Section title="Building from faces">
        <p className="mb-2 text-ink2">{asked.masses ? `From ${asked.masses.map((id) => scheme.masses[id]?.name).join(', ')}` : 'From all masses'}. Nothing is made until you accept.</p>
        <ChoiceField label="walls" value={asked.wall} options={options(walls)} onChange={(wall) => change({ wall })} />
        <ChoiceField label="walls lie" value={asked.wallSide} options={[{ value: 'inside', label: 'inside the face' }, { value: 'outside', label: 'outside the face' }]} onChange={(wallSide) => change({ wallSide })} />
        <ChoiceField label="slabs" value={asked.slab} options={options(slabs)} onChange={(slab) => change({ slab })} />
        <ChoiceField label="roofs" value={asked.roof} options={options(roofs)} onChange={(roof) => change({ roof })} />
        <NumField label="roof overhang" value={asked.overhang} onAccept={(_, overhang) => { if (overhang < 0) return false; change({ overhang }); return undefined }} hint="Measured level, square to eaves and verge." />
      </Section>
      <Section title="It would make">
        {ROLES.map((role) => { const found = offer?.candidates.filter((c) => c.role === role) ?? []; return found.length ? <Figure key={role} label={`${found.length} ${found.length === 1 ? role : PLURAL[role]}`}><span data-offer={role}>{showNumber(found.reduce((s, c) => s + c.area, 0), 'area', 'm')} m²</span></Figure> : null })}
        {offer && offer.candidates.length === 0 && <p className="text-ink2">Nothing new: every face has its part.</p>}
        {offer && offer.candidates.length > 0 && <Figure label="volume of all parts">{showNumber(offer.volume, 'area', 'm')} m³</Figure>}
        {offer && offer.candidates.length > 0 && (
          <details className="mt-2"><summary className="cursor-pointer text-[12px] text-ink2">each part</summary><ul className="mt-1 max-h-48 overflow-auto text-[12px]">{offer.candidates.map((c) => <li key={c.key} className="flex justify-between gap-2 py-0.5"><span className="truncate">{c.name}</span><span className="shrink-0 text-ink2">{showNumber(c.area, 'area', 'm')}</span></li>)}</ul></details>
        )}
      </Section>
      {reasons.length > 0 && (
        <Section title="Left out, and why">
          <ul>{reasons.map(([why, r]) => <li key={why} className="border-b border-line py-1.5 text-[12px]" data-left-out title={r.what.join('\n')}><b>{r.count}</b> <span className="text-ink2">{r.count === 1 ? r.what[0] : `faces, ${showNumber(r.area, 'area', 'm')} m²`}: {why}</span></li>)}</ul>
        </Section>
      )}
      {offer && offer.remarks.length > 0 && (
        <Section title="To look at first">
          <ul>{offer.remarks.map((r, i) => <li key={i} className="border-b border-line py-1.5 text-[12px] text-warn" data-remark>{r.what}: {r.say}</li>)}</ul>
        </Section>
      )}
      <div className="sticky -bottom-3.5 -mx-4 -mb-3.5 flex gap-2 border-t border-line bg-panel px-4 py-3"><button className="act" onClick={() => dispatch(proposed(null))}>Cancel</button><button className="act act-main flex-1" disabled={!offer?.candidates.length} onClick={() => void accept()}>Make {offer?.candidates.length ?? 0} parts</button></div>
    </>
  )
}
