import { useState } from 'react'
import { nextOrder, numbersOf, showNumber, type BuildUp } from '@geotome/core/project'
import { buildUpThickness } from '@geotome/core/fabric'
import { inOrder } from '@geotome/core/project'
import { useProject, useStudy } from '../app/hooks'
import { makeEdit } from '../app/session'
import { makeComputedEdit } from '../app/study-loop'
import { useAppDispatch } from '../app/store'
import { picked } from '../app/view-slice'
import { NameField, Section } from '../common/fields'
import { NumField } from '../common/NumField'
import { studyWorker } from '../worker/client'

/** All parts: first those that have drifted, with one action that brings them in line; then by role; and the build-ups. */
export function FabricList() {
  const dispatch = useAppDispatch()
  const { scheme } = useProject()
  const study = useStudy()
  if (!study) return null
  const off = study.parts.filter((p) => p.bond.status !== 'bonded')
  const drifted = off.filter((p) => p.bond.status === 'drifted')
  const loose = off.filter((p) => p.bond.status === 'loose')
  const roles = [...new Set(study.parts.map((p) => p.role))]
  return (
    <>
      {off.length > 0 && (
        <Section title={`Drifted and loose, ${off.length}`}>
          {drifted.length > 0 && <button className="act act-main mb-2 w-full" onClick={() => void makeComputedEdit(`bring ${drifted.length} parts in line`, () => studyWorker.bringInLine(scheme.id, null))}>Bring {drifted.length} in line</button>}
          {loose.length > 0 && <button className="act mb-2 w-full" onClick={() => makeEdit(`remove ${loose.length} loose parts`, { edit: 'batch', edits: loose.map((p) => ({ edit: 'part.remove' as const, scheme: scheme.id, id: p.id })) })}>Remove {loose.length} loose</button>}
          <ul>{off.map((p) => <li key={p.id} data-drifted><button className="w-full cursor-pointer border-b border-line py-1.5 text-left hover:bg-field" onClick={() => dispatch(picked({ kind: 'part', ids: [p.id] }))}><span className="block font-medium">{p.name}</span><span className="text-[12px] text-warn">{p.bond.why}</span></button></li>)}</ul>
        </Section>
      )}
      <Section title="Parts">
        {study.parts.length === 0 && <p className="rounded-md border border-line bg-field p-3 text-ink2">No walls yet. Take <b className="text-ink">Make building</b> below the stage: it shows what each face would become before it makes anything.</p>}
        {roles.map((role) => { const all = study.parts.filter((p) => p.role === role); return (
          <details key={role} className="border-b border-line py-1.5"><summary className="flex cursor-pointer justify-between"><span>{role} <span className="text-ink2">{all.length}</span></span><span className="font-semibold">{showNumber(all.reduce((s, p) => s + p.area, 0), 'area', 'm')} m²</span></summary>
            <ul className="mt-1">{all.map((p) => <li key={p.id}><button className="flex w-full cursor-pointer justify-between gap-2 rounded px-1 py-0.5 text-left text-[12px] hover:bg-field" onClick={() => dispatch(picked({ kind: 'part', ids: [p.id] }))}><span className="truncate">{p.name}</span><span className="shrink-0 text-ink2">{showNumber(p.area, 'area', 'm')}</span></button></li>)}</ul></details>) })}
      </Section>
      <BuildUps />
    </>
  )
}

/** The kinds of wall, slab and roof, with their layers from outside to inside. */
function BuildUps() {
  const { project, scheme } = useProject()
  const numbers = numbersOf(project, scheme)
  const [open, setOpen] = useState<string | null>(null)
  const change = (b: BuildUp, set: Partial<BuildUp>) => makeEdit(`build-up ${b.name}`, { edit: 'build-up.change', id: b.id, set })
  const copy = (b: BuildUp) => {
    const id = crypto.randomUUID()
    if (makeEdit(`copy ${b.name}`, { edit: 'build-up.add', thing: { ...b, id, name: `${b.name}, copy`, order: nextOrder(project.buildUps) } })) setOpen(id)
  }
  return (
    <Section title="Build-ups">
      {inOrder(project.buildUps).map((b) => (
        <details key={b.id} className="border-b border-line py-1.5" open={open === b.id} onToggle={(e) => { if (e.currentTarget.open) setOpen(b.id); else if (open === b.id) setOpen(null) }}>
          <summary className="flex cursor-pointer justify-between"><span>{b.name} <span className="text-ink2">{b.for}</span></span><span className="font-semibold">{Math.round(buildUpThickness(b, numbers) * 1000)} mm</span></summary>
          {open === b.id && <div className="mt-1.5">
            <NameField label="name" value={b.name} onAccept={(name) => change(b, { name })} />
            {b.layers.map((l, i) => <NumField key={i} label={`${l.name}, ${l.material}`} value={l.thickness} onAccept={(thickness) => change(b, { layers: b.layers.map((o, k) => (k === i ? { ...o, thickness } : o)) })} />)}
            <button className="cursor-pointer text-[12px] text-ink2 underline" onClick={() => copy(b)}>Copy this build-up</button>
          </div>}
        </details>
      ))}
    </Section>
  )
}
