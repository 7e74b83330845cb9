import { Trash2 } from 'lucide-react'
import { showNumber, showQuantity, type Part } from '@geotome/core/project'
import { useBuildUps, useProject, useStudy } from '../app/hooks'
import { makeEdit } from '../app/session'
import { makeComputedEdit } from '../app/study-loop'
import { useAppDispatch } from '../app/store'
import { picked } from '../app/view-slice'
import { ChoiceField, Figure, NameField, Section } from '../common/fields'
import { NumField } from '../common/NumField'
import { studyWorker } from '../worker/client'

/** A picked part: its build-up, side, figures, and its bond to the face it stands on. */
export function PartDetails({ part }: { part: Part }) {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const study = useStudy()
  const buildUps = useBuildUps(part.kind)
  const shown = study?.parts.find((p) => p.id === part.id)
  const set = (label: string, fields: Partial<Part>) => makeEdit(`${label} of ${part.name}`, { edit: 'part.change', scheme: scheme.id, id: part.id, set: fields })
  return (
    <>
      <p className="eyebrow mb-2">{shown?.role ?? part.kind}</p>
      <NameField label="name" value={part.name} onAccept={(name) => set('name', { name })} />
      <ChoiceField label="build-up" value={part.buildUp} options={buildUps.map((b) => ({ value: b.id, label: b.name }))} onChange={(buildUp) => set('build-up', { buildUp })} />
      {part.kind !== 'slab' && <ChoiceField label="lies" value={part.side} options={[{ value: 'inside', label: 'inside the face' }, { value: 'outside', label: 'outside the face' }]} onChange={(side) => set('side', { side })} />}
      {part.kind === 'roof' && <NumField label="overhang" value={part.overhang} onAccept={(overhang) => set('overhang', { overhang })} />}
      {shown && (
        <Section title="Bond">
          <p className={`mb-2 ${shown.bond.status === 'bonded' ? 'text-ink2' : 'font-medium text-warn'}`} data-bond={shown.bond.status}>{shown.bond.status === 'bonded' ? 'In line with its face.' : `${shown.bond.status === 'drifted' ? 'Drifted' : 'Loose'}: ${shown.bond.why}.`}</p>
          {shown.bond.status === 'drifted' && <button className="act act-main w-full" onClick={() => void makeComputedEdit(`bring ${part.name} in line`, () => studyWorker.bringInLine(scheme.id, [part.id]))}>Bring in line</button>}
        </Section>
      )}
      {shown && (
        <Section title="Figures">
          <Figure label={part.kind === 'slab' ? 'area' : 'area of face'}>{showNumber(shown.area, 'area', 'm')} m²</Figure>
          <Figure label="thickness">{showQuantity(shown.thickness, 'length', project.unit)}</Figure>
          <Figure label="volume">{showNumber(shown.volume, 'area', 'm', 3)} m³</Figure>
          {shown.length !== null && <Figure label="length">{showQuantity(shown.length, 'length', project.unit)}</Figure>}
          <Figure label="stands on">{study?.levels.find((l) => l.id === part.base?.level)?.name ?? 'its face'}</Figure>
          {part.kind === 'wall' && <Figure label="up to">{part.top ? `slab of ${study?.levels.find((l) => l.id === part.top?.level)?.name ?? ''}` : 'the top of its face'}</Figure>}
        </Section>
      )}
      <button className="act w-full text-error" onClick={() => { if (makeEdit(`remove ${part.name}`, { edit: 'part.remove', scheme: scheme.id, id: part.id })) dispatch(picked({ kind: 'nothing' })) }}><Trash2 size={14} /> Remove part</button>
    </>
  )
}
