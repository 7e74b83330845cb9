import { FileUp, Plus, Trash2 } from 'lucide-react'
import { useCallback, useEffect, useRef, useState } from 'react'
import { useForm } from 'react-hook-form'
import { Link, useNavigate } from 'react-router'
import { toast } from 'sonner'
import { showNumber, type Unit } from '@geotome/core/project'
import { api, Problem, type ProjectSummary } from '../app/api'
import { waiting } from '../app/outbox'
import { sendLeftovers } from '../app/session'
import { Dialog } from '../common/Dialog'
import { Wordmark } from '../common/Wordmark'

/** The list of projects: open one, make one, bring one in. */
export default function Projects() {
  const navigate = useNavigate()
  const [projects, setProjects] = useState<ProjectSummary[] | null>(null)
  const [fault, setFault] = useState<string | null>(null)
  const [making, setMaking] = useState(false)
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
      toast.error(
        `${chosen.name} has ${Math.round(chosen.size / 1e6)} MB; a project file has at most 150 MB. Pictures and scans are not project files.`,
      )
      return
    }
    try {
      const { id } = await api.importFile(chosen)
      void navigate(`/p/${id}/slice`)
    } catch (e) {
      toast.error(e instanceof Problem ? `${chosen.name}: ${e.message}` : String(e))
    }
  }
  const remove = async (p: ProjectSummary) => {
    await api.remove(p.id)
    load()
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
      <main className="mx-auto max-w-3xl px-6 py-12">
        <div className="mb-8 flex items-end justify-between">
          <div>
            <h1 className="text-[30px] leading-tight font-bold tracking-tight">Projects</h1>
            <p className="mt-1 text-ink2">Forms, cut at their floors, and the areas that come of it.</p>
          </div>
          <div className="flex gap-2">
            <button className="act" onClick={() => file.current?.click()}>
              <FileUp size={15} /> Import
            </button>
            <button className="act act-main" onClick={() => setMaking(true)}>
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
        <ul className="border-t border-line">
          {projects?.map((p) => (
            <li key={p.id} className="group flex items-center border-b border-line" data-project={p.name}>
              <Link to={`/p/${p.id}/slice`} className="flex min-w-0 flex-1 items-baseline gap-4 py-4">
                <span className="min-w-0 flex-1 truncate text-[17px] font-semibold group-hover:underline">
                  {p.name}
                </span>
                {(unsent.get(p.id) ?? 0) > 0 && (
                  <span className="text-[12px] text-warn" data-unsent>
                    {unsent.get(p.id)} not sent yet
                  </span>
                )}
                <span className="w-40 text-right text-[15px] font-semibold">
                  {p.totalArea === null ? (
                    <span className="font-normal text-ink2">computing</span>
                  ) : (
                    <>
                      {showNumber(p.totalArea, 'area', 'm')} <span className="font-normal text-ink2">m²</span>
                    </>
                  )}
                </span>
                <span className="w-36 text-right text-ink2">{when(p.changedAt)}</span>
              </Link>
              <button
                className="ml-3 cursor-pointer p-2 text-ink3 hover:text-error"
                aria-label={`Remove ${p.name}`}
                onClick={() => void remove(p)}
              >
                <Trash2 size={15} />
              </button>
            </li>
          ))}
        </ul>
      </main>
      {making && <NewProject onClose={() => setMaking(false)} />}
    </div>
  )
}

function NewProject({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate()
  const {
    register,
    handleSubmit,
    formState: { errors },
  } = useForm<{ name: string; unit: Unit; siteArea: string }>({ defaultValues: { name: '', unit: 'm', siteArea: '' } })
  const accept = handleSubmit(async ({ name, unit, siteArea }) => {
    try {
      const { id } = await api.create({ name, unit, siteArea: siteArea.trim() ? areaFrom(siteArea) : null })
      void navigate(`/p/${id}/form`)
    } catch (e) {
      toast.error(e instanceof Problem ? e.message : String(e))
    }
  })
  const field = 'h-9 w-48 rounded-md border border-line bg-field px-2.5 font-semibold'
  return (
    <Dialog title="New project" onClose={onClose} onAccept={() => void accept()} accept="Make project">
      <label className="mb-2 flex items-center justify-between">
        name
        <input
          autoFocus
          className={field}
          {...register('name', { validate: (v) => v.trim() !== '' || 'A project needs a name.' })}
          aria-invalid={!!errors.name}
        />
      </label>
      {errors.name && (
        <p role="alert" className="mb-2 text-right text-[12px] text-error">
          {errors.name.message}
        </p>
      )}
      <label className="mb-2 flex items-center justify-between">
        unit
        <select className={field} {...register('unit')}>
          <option value="m">metres</option>
          <option value="mm">millimetres</option>
          <option value="ft">feet and inches</option>
        </select>
      </label>
      <label className="flex items-center justify-between">
        site area, m²
        <input
          className={field}
          placeholder="not known yet"
          {...register('siteArea', {
            validate: (v) =>
              v.trim() === '' || areaFrom(v) > 0 || 'Type a number above zero, for example 4200, or leave it empty.',
          })}
          aria-invalid={!!errors.siteArea}
        />
      </label>
      {errors.siteArea && (
        <p role="alert" className="mt-1 text-right text-[12px] text-error">
          {errors.siteArea.message}
        </p>
      )}
    </Dialog>
  )
}

/** A typed area: grouping commas and the unit may stand, arithmetic is for the project's own fields. */
const areaFrom = (text: string) => Number(text.replace(/m2|m²|[\s,]/g, ''))

function when(iso: string): string {
  const date = new Date(iso)
  return date.toDateString() === new Date().toDateString()
    ? `today ${date.toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })}`
    : date.toLocaleDateString([], { day: 'numeric', month: 'short', year: 'numeric' })
}
