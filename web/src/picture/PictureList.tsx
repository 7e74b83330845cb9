import { SortableList } from '../common/SortableList'
import { Eye, EyeOff, Trash2 } from 'lucide-react'
import { useRef, useState } from 'react'
import {
  inOrder,
  MEASURES,
  numbersOf,
  showQuantity,
  type Comparison,
  type KeptMeasure,
  type Picture,
  type Trace,
  showFine,
} from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { makeEdit } from '../app/session'
import { workerReady } from '../app/study-loop'
import { useAppDispatch, useAppSelector } from '../app/store'
import { picked } from '../app/view-slice'
import { orSay } from '../common/refused'
import { NameField, Section } from '../common/fields'
import { massFromLoops, neighbourEdit, reorderPicture, siteEdit } from '@geotome/core/groundwork'
import { studyWorker } from '../worker/client'
import { addPicture, pagesOf } from './add-picture'
import { PageChoice } from './PageChoice'

/** All pictures, what was measured on them and on the model, and what was traced. */
export function PictureList() {
  const dispatch = useAppDispatch()
  const { project } = useProject()
  const file = useRef<HTMLInputElement>(null)
  const [paged, setPaged] = useState<{ file: File; pages: number } | null>(null)
  const pictures = inOrder(project.pictures)
  const take = async (chosen: File) => {
    const pages = await pagesOf(chosen)
    if (pages > 1) setPaged({ file: chosen, pages })
    else await addPicture(chosen)
  }
  return (
    <>
      <Section title="Pictures">
        <input
          ref={file}
          type="file"
          aria-label="Picture file"
          accept="image/png,image/jpeg,image/webp,application/pdf,.pdf"
          className="sr-only"
          onChange={(e) => {
            const f = e.target.files?.[0]
            if (f) void take(f)
            e.target.value = ''
          }}
        />
        {pictures.length === 0 && (
          <p className="mb-2 text-ink2">
            Sketches, plans, sections, photographs: drop one anywhere, paste it, or choose a file (PNG, JPEG, WebP, a
            PDF's page).
          </p>
        )}
        <SortableList
          label="Pictures in the order in which they are drawn"
          ids={pictures.map((p) => p.id)}
          names={pictures.map((p) => p.name)}
          className="mb-1 flex items-center gap-1.5 rounded-md border border-line bg-panel p-1.5"
          onMove={(from, to) => {
            const moved = pictures[from]
            const edit = moved && reorderPicture(project, moved.id, to)
            if (moved && edit) makeEdit(`order of ${moved.name}`, edit)
          }}
        >
          {(_, i) => {
            const p = pictures[i]
            return (
              p && (
                <span data-picture={p.name} className="contents">
                  <img
                    src={`/api/assets/${p.asset}`}
                    alt=""
                    className="h-9 w-12 shrink-0 rounded-sm border border-line bg-white object-cover"
                  />
                  <button
                    className="min-w-0 flex-1 cursor-pointer truncate text-left font-medium"
                    onClick={() => dispatch(picked({ kind: 'picture', ids: [p.id] }))}
                  >
                    {p.name}
                    <span className="block text-[11px] font-normal text-ink2">
                      {p.pairs.length ? 'calibrated' : 'not calibrated'},{' '}
                      {p.stands.length === 0
                        ? 'not laid'
                        : `in ${p.stands.length} ${p.stands.length === 1 ? 'view' : 'views'}`}
                    </span>
                  </button>
                  <ShownToggle picture={p} />
                </span>
              )
            )
          }}
        </SortableList>
        <button className="btn btn-sm mt-1 w-full" onClick={() => file.current?.click()}>
          Add a picture
        </button>
        {paged && (
          <PageChoice
            file={paged.file.name}
            pages={paged.pages}
            take={(page) => {
              void addPicture(paged.file, page)
              setPaged(null)
            }}
          />
        )}
      </Section>
      <Measures />
      <Traces />
    </>
  )
}

function ShownToggle({ picture: p }: { picture: Picture }) {
  const shown = p.stands.some((s) => s.shown)
  return (
    <button
      className="cursor-pointer p-1 text-ink2"
      aria-label={shown ? `Hide ${p.name}` : `Show ${p.name}`}
      aria-pressed={shown}
      onClick={() =>
        makeEdit(`${shown ? 'hide' : 'show'} ${p.name}`, {
          edit: 'picture.change',
          id: p.id,
          set: { stands: p.stands.map((s) => ({ ...s, shown: !shown })) },
        })
      }
    >
      {shown ? <Eye size={14} /> : <EyeOff size={14} />}
    </button>
  )
}

function Measures() {
  const { project } = useProject()
  const numbers = numbersOf(project, null)
  const all = inOrder(project.measures)
  const set = (m: KeptMeasure, label: string, fields: Partial<KeptMeasure>) =>
    makeEdit(`${label} of ${m.name}`, { edit: 'measure.change', id: m.id, set: fields })
  if (all.length === 0)
    return (
      <Section title="Measures">
        <p className="text-ink2">
          Take Measure, and pick points on the model or on a picture. What is measured has a name, and every field takes
          it.
        </p>
      </Section>
    )
  return (
    <Section title="Measures">
      {all.map((m) => {
        const { quantity } = MEASURES[m.kind]
        const others = all.filter((o) => o.id !== m.id && MEASURES[o.kind].quantity === quantity)
        return (
          <div key={m.id} data-measure={m.name} className="mb-1.5 rounded-md border border-line px-2 py-1.5">
            <div className="flex items-center gap-1.5">
              <div className="min-w-0 flex-1 [&>label]:mb-0 [&>label]:h-7">
                <NameField
                  label=""
                  hidden="name of the measure"
                  value={m.name}
                  onAccept={(name) => set(m, 'name', { name })}
                />
              </div>
              <b data-measure-value>
                {showQuantity(numbers.value({ formula: `{${m.id}}` }, quantity), quantity, project)}
              </b>
              <button
                className="cursor-pointer p-0.5 text-ink2 hover:text-error"
                aria-label={`Remove ${m.name}`}
                onClick={() =>
                  makeEdit(`remove ${m.name}`, {
                    edit: 'batch',
                    edits: [
                      ...all
                        .filter((o) => o.same === m.id)
                        .map((o) => ({ edit: 'measure.change' as const, id: o.id, set: { same: null } })),
                      { edit: 'measure.remove', id: m.id },
                    ],
                  })
                }
              >
                <Trash2 size={12} />
              </button>
            </div>
            <p className="mt-0.5 flex items-center justify-between text-[11px] text-ink2">
              <span>
                {m.kind} on {m.picture ? (project.pictures[m.picture]?.name ?? 'a picture') : 'the model'}
              </span>
              {others.length > 0 && (
                <select
                  aria-label={`the same as ${m.name}`}
                  className="max-w-28 cursor-pointer bg-transparent"
                  value={m.same ?? ''}
                  onChange={(e) => set(m, 'the same', { same: e.target.value || null })}
                >
                  <option value="" className="bg-panel">
                    same as ...
                  </option>
                  {others.map((o) => (
                    <option key={o.id} value={o.id} className="bg-panel">
                      same as {o.name}
                    </option>
                  ))}
                </select>
              )}
            </p>
          </div>
        )
      })}
    </Section>
  )
}

/** What was traced: compared with the model, or made into a mass, the site or a neighbour. */
function Traces() {
  const dispatch = useAppDispatch()
  const { project, scheme } = useProject()
  const level = useAppSelector((s) => s.view.level)
  const [compared, setCompared] = useState<Record<string, Comparison & { view: string }>>({})
  const all = inOrder(project.traces)
  if (all.length === 0) return null
  const compare = async (t: Trace) => {
    await workerReady()
    const comparison = await orSay(studyWorker.compareTrace(scheme.id, t.id, 0))
    if (comparison) setCompared((c) => ({ ...c, [t.id]: comparison }))
  }
  const become = async (t: Trace, what: 'mass' | 'site' | 'neighbour') => {
    await workerReady()
    const loops = await orSay(studyWorker.tracedPlan(scheme.id, t.id))
    if (!loops) return
    const mint = () => crypto.randomUUID()
    const outer = loops[0]?.points ?? []
    if (what === 'site') {
      makeEdit(`site from ${t.name}`, () => siteEdit(project, mint, outer))
      return
    }
    if (what === 'neighbour') {
      makeEdit(`neighbour from ${t.name}`, () => neighbourEdit(project, mint(), outer, 9, t.name))
      return
    }
    let id = ''
    const made = makeEdit(`mass from ${t.name}`, () => {
      const on = { name: t.name, level: level ?? Object.keys(scheme.levels)[0] ?? '', height: 9 }
      const mass = massFromLoops(project, scheme, mint, loops, on)
      id = mass.id
      return mass.edit
    })
    if (made) dispatch(picked({ kind: 'mass', ids: [id] }))
  }
  const link = 'cursor-pointer underline'
  return (
    <Section title="Traced">
      {all.map((t) => (
        <div key={t.id} data-trace={t.name} className="mb-1.5 rounded-md border border-line px-2 py-1.5">
          <div className="flex items-center gap-1">
            <div className="min-w-0 flex-1 [&>label]:mb-0 [&>label]:h-7">
              <NameField
                label=""
                hidden="name of the trace"
                value={t.name}
                onAccept={(name) => makeEdit(`name of ${t.name}`, { edit: 'trace.change', id: t.id, set: { name } })}
              />
            </div>
            <button
              className="cursor-pointer p-0.5 text-ink2 hover:text-error"
              aria-label={`Remove ${t.name}`}
              onClick={() => makeEdit(`remove ${t.name}`, { edit: 'trace.remove', id: t.id })}
            >
              <Trash2 size={12} />
            </button>
          </div>
          <p className="text-[11px] text-ink2">
            {t.loops[0]?.points.length} corners
            {t.loops.length > 1 ? `, ${t.loops.length - 1} ${t.loops.length === 2 ? 'hole' : 'holes'}` : ''} on{' '}
            {project.pictures[t.picture]?.name}
          </p>
          <p className="flex flex-wrap gap-x-2.5 text-[11.5px] text-ink2">
            {t.closed &&
              (['mass', 'site', 'neighbour'] as const).map((w) => (
                <button key={w} className={link} onClick={() => void become(t, w)}>
                  {w === 'mass' ? 'make a mass' : w === 'site' ? 'as the site' : 'as a neighbour'}
                </button>
              ))}
            <button className={link} onClick={() => void compare(t)}>
              compare
            </button>
          </p>
          {compared[t.id] && (
            <p className="mt-0.5 text-[12px]" role="status" data-compared>
              off {compared[t.id]?.view}: at most <b>{showFine(compared[t.id]?.greatest ?? 0, project)}</b>, on average{' '}
              <b>{showFine(compared[t.id]?.mean ?? 0, project)}</b>
            </p>
          )}
        </div>
      ))}
    </Section>
  )
}
