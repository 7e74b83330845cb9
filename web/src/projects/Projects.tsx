import { format, isToday } from 'date-fns'
import { Copy, FileUp, Plus, Search, Trash2 } from 'lucide-react'
import { useCallback, useEffect, useRef, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { toast } from 'sonner'
import { areaSign, showNumber, showQuantity } from '@geotome/core/project'
import { api, Problem, type ProjectSummary } from '../app/api'
import { waiting } from '../app/outbox'
import { sendLeftovers } from '../app/session'
import { confirmed } from '../common/confirm'
import { Wordmark } from '../common/Wordmark'
import { author } from '../app/author'
import { NewProject } from './NewProject'
import { ProjectPicture } from './ProjectPicture'
import { tellFault } from '../common/tell'

type Order = 'newest' | 'name' | 'area'
const ORDERS: Record<Order, { label: string; compare: (a: ProjectSummary, b: ProjectSummary) => number }> = {
  newest: { label: 'last changed first', compare: (a, b) => (a.changedAt < b.changedAt ? 1 : -1) },
  name: { label: 'by name', compare: (a, b) => a.name.localeCompare(b.name) },
  area: { label: 'largest first', compare: (a, b) => (b.totalArea ?? -1) - (a.totalArea ?? -1) },
}

/** The projects: open one, make one, bring one in. */
export default function Projects() {
  const navigate = useNavigate()
  const [projects, setProjects] = useState<ProjectSummary[] | null>(null)
  const [fault, setFault] = useState<string | null>(null)
  const [making, setMaking] = useState(false)
  const [wanted, setWanted] = useState('')
  const [order, setOrder] = useState<Order>('newest')
  const [away, setAway] = useState<ProjectSummary[] | null>(null)
  const file = useRef<HTMLInputElement>(null)
  const load = useCallback(() => {
    api.projects().then(
      (p) => {
        setProjects(p)
        setFault(null)
      },
      (e: unknown) => setFault(e instanceof Problem ? e.message : String(e)),
    )
  }, [])
  const [unsent, setUnsent] = useState<ReadonlyMap<string, number>>(new Map())
  useEffect(() => {
    void (async () => {
      setUnsent(await waiting())
      if (await sendLeftovers()) setUnsent(await waiting())
    })()
  }, [projects])
  useEffect(() => {
    document.title = 'Geotome'
    load()
    const timer = setInterval(load, 4000)
    return () => clearInterval(timer)
  }, [load])

  const bringIn = async (chosen: File | undefined) => {
    if (!chosen) return
    if (chosen.size > 150 * 1024 * 1024) {
      tellFault(
        `${chosen.name} has ${Math.round(chosen.size / 1e6)} MB; a project file has at most 150 MB. Pictures and scans are not project files.`,
      )
      return
    }
    try {
      const { id, mended } = await api.importFile(chosen)
      if (mended) toast(mended)
      void navigate(`/p/${id}/slice`)
    } catch (e) {
      tellFault(e instanceof Problem ? `${chosen.name}: ${e.message}` : String(e))
    }
  }
  const showAway = async () => setAway(away ? null : await api.projects(true))
  const bringBack = async (p: ProjectSummary) => {
    await api.restore(p.id)
    setAway(await api.projects(true))
    load()
  }
  const endForGood = async (p: ProjectSummary) => {
    const isMeant = await confirmed({
      title: `End ${p.name} for good?`,
      say: [
        'All its edits and moments are deleted, and in time the pictures that no other project shows. Nothing brings it back.',
      ],
      accept: 'End it for good',
    })
    if (!isMeant) return
    await api.endForGood(p.id)
    setAway(await api.projects(true))
  }
  const duplicate = async (p: ProjectSummary) => {
    try {
      const { name } = await api.duplicate(p.id)
      toast(`${name} is a copy of ${p.name} as it is now.`)
      load()
    } catch (e) {
      tellFault(e instanceof Problem ? e.message : String(e))
    }
  }
  const shown = (projects ?? [])
    .filter((p) => p.name.toLowerCase().includes(wanted.trim().toLowerCase()))
    .sort(ORDERS[order].compare)
  const remove = async (p: ProjectSummary) => {
    await api.remove(p.id)
    load()
    if (away) setAway(await api.projects(true))
    toast(`${p.name} is removed.`, {
      action: {
        label: 'Undo',
        onClick: () => {
          void api.restore(p.id).then(load)
        },
      },
      duration: 12000,
    })
  }
  return (
    <div
      className="h-full overflow-auto"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault()
        void bringIn(e.dataTransfer.files[0])
      }}
    >
      <header className="flex h-11 items-center border-b border-line bg-panel px-4">
        <Wordmark />
      </header>
      <main className="mx-auto max-w-5xl px-6 py-10">
        <div className="mb-8 flex items-end justify-between">
          <div>
            <h1 className="text-[30px] leading-tight font-bold tracking-tight">Projects</h1>
            <p className="mt-1 text-ink2">Forms, cut at their floors, and the areas that come of it.</p>
          </div>
          <div className="flex gap-2">
            <button className="btn btn-sm" onClick={() => file.current?.click()}>
              <FileUp size={15} /> Import
            </button>
            <button className="btn btn-primary btn-sm" onClick={() => setMaking(true)}>
              <Plus size={15} /> New project
            </button>
          </div>
        </div>
        <input
          ref={file}
          type="file"
          accept=".geotome,.json,application/json,application/zip"
          className="hidden"
          aria-label="Project file"
          onChange={(e) => {
            void bringIn(e.target.files?.[0])
            e.target.value = ''
          }}
        />
        {fault && (
          <p role="alert" className="mb-4 text-warn">
            {fault}
          </p>
        )}
        {projects?.length === 0 && (
          <p className="rounded-lg border border-line bg-panel p-6 text-ink2">
            No project yet. Make one, or drop a project file here.
          </p>
        )}
        {projects && (
          <div className="mb-4 flex items-center gap-3">
            {projects.length > 0 && (
              <>
                <label className="input input-sm w-64">
                  <Search size={14} className="text-ink3" />
                  <input
                    type="search"
                    aria-label="Search the projects"
                    placeholder="search by name"
                    value={wanted}
                    onChange={(e) => setWanted(e.target.value)}
                  />
                </label>
                <select
                  aria-label="Order of the projects"
                  className="select select-sm w-44"
                  value={order}
                  onChange={(e) => setOrder(e.target.value as Order)}
                >
                  {Object.entries(ORDERS).map(([id, o]) => (
                    <option key={id} value={id}>
                      {o.label}
                    </option>
                  ))}
                </select>
              </>
            )}
            <button className="btn btn-sm ml-auto" aria-pressed={away !== null} onClick={() => void showAway()}>
              {away ? 'Hide what was taken away' : 'Taken away'}
            </button>
          </div>
        )}
        {away && (
          <ul className="mb-5 rounded-lg border border-line bg-panel px-4 py-1" aria-label="Taken away">
            {away.length === 0 && <li className="py-2 text-ink2">Nothing was taken away.</li>}
            {away.map((p) => (
              <li key={p.id} className="row items-center last:border-0">
                <span className="min-w-0 flex-1 truncate">{p.name}</span>
                {p.removedAt && (
                  <span className="text-[12px] text-ink2">
                    taken away {format(new Date(p.removedAt), 'd MMM yyyy')}
                  </span>
                )}
                <span className="flex gap-1.5">
                  <button className="btn btn-xs" onClick={() => void bringBack(p)}>
                    Bring back
                  </button>
                  <button
                    className="btn btn-xs hover:text-error"
                    title="Deletes it with all its edits; nothing brings it back"
                    onClick={() => void endForGood(p)}
                  >
                    End for good
                  </button>
                </span>
              </li>
            ))}
          </ul>
        )}
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(232px,1fr))] gap-4">
          {shown.map((p) => (
            <li
              key={p.id}
              className="group relative overflow-hidden rounded-lg border border-line bg-panel hover:border-ink3"
              data-project={p.name}
            >
              <Link to={`/p/${p.id}/slice`} className="block">
                <ProjectPicture id={p.id} seq={p.totalSeq} />
                <span className="block border-t border-line px-3.5 pt-2.5 pb-3">
                  <span className="block truncate text-[16px] font-semibold group-hover:underline">{p.name}</span>
                  <span className="mt-0.5 flex items-baseline justify-between gap-2">
                    <span className="text-[15px] font-semibold">
                      {p.totalArea === null ? (
                        <span className="font-normal text-ink2">computing</span>
                      ) : (
                        <>
                          {showNumber(p.totalArea, 'area', p.unit)}{' '}
                          <span className="font-normal text-ink2">{areaSign(p.unit)}</span>
                        </>
                      )}
                    </span>
                    <span className="text-[12px] text-ink2">
                      {p.siteArea === null ? 'no site yet' : `site ${showQuantity(p.siteArea, 'area', p.unit, 0)}`}
                    </span>
                  </span>
                  <span className="mt-1 block text-[12px] text-ink2">
                    {changed(p)}
                    {(unsent.get(p.id) ?? 0) > 0 && (
                      <span className="text-warn" data-unsent>
                        {' '}
                        · {unsent.get(p.id)} not sent yet
                      </span>
                    )}
                  </span>
                </span>
              </Link>
              <span className="absolute top-1.5 right-1.5 flex gap-1">
                <button
                  className="btn btn-square btn-xs"
                  aria-label={`Duplicate ${p.name}`}
                  title="Duplicate"
                  onClick={() => void duplicate(p)}
                >
                  <Copy size={13} />
                </button>
                <button
                  className="btn btn-square btn-xs hover:text-error"
                  aria-label={`Remove ${p.name}`}
                  title="Take away; it can be brought back"
                  onClick={() => void remove(p)}
                >
                  <Trash2 size={13} />
                </button>
              </span>
            </li>
          ))}
        </ul>
        {projects && projects.length > 0 && shown.length === 0 && (
          <p className="text-ink2">No project has "{wanted}" in its name.</p>
        )}
      </main>
      {making && <NewProject onClose={() => setMaking(false)} />}
    </div>
  )
}

/** When, and by whom: "today 14:05, by you". */
function changed(p: ProjectSummary): string {
  const date = new Date(p.changedAt)
  const at = isToday(date) ? `today ${format(date, 'HH:mm')}` : format(date, 'd MMM yyyy')
  return p.changedBy === null ? at : `${at}, ${p.changedBy === author() ? 'by you' : 'by another'}`
}
