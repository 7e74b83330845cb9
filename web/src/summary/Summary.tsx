import { lazy, Suspense, useEffect, useState } from 'react'
import { Link, useParams } from 'react-router'
import { Printer } from 'lucide-react'
import { showFigure, type SchemeSummary } from '@geotome/core/study'
import { showQuantity } from '@geotome/core/project'
import { useProject, useUses } from '../app/hooks'
import { closeProject, openProject } from '../app/session'
import { startStudyLoop } from '../app/study-loop'
import { Problem } from '../app/api'
import { selectProject } from '../app/project-slice'
import { useAppSelector } from '../app/store'
import { UseMark } from '../common/use-marks'
import { SketchPicture } from '../projects/ProjectPicture'
import { Wordmark } from '../common/Wordmark'
import { SCHEME_FIGURES } from '../slice/scheme-figures'
import { useSummaries } from '../slice/use-summaries'

const Chart = lazy(() => import('./SchemesChart'))

/** All schemes of a project on one page, to be printed or sent as a link. */
export default function Summary() {
  const { id = '' } = useParams()
  const open = useAppSelector((s) => selectProject(s)?.id ?? null)
  const [fault, setFault] = useState<string | null>(null)
  useEffect(() => {
    openProject(id, null).catch((e: unknown) =>
      setFault(e instanceof Problem ? e.message : 'The project could not be opened. Reload the page.'),
    )
    const stop = startStudyLoop()
    return () => {
      stop()
      closeProject()
    }
  }, [id])
  if (fault) return <main className="p-8">{fault}</main>
  if (!open) return <main className="grid h-full place-items-center text-ink2">Opening the project ...</main>
  return <Page id={id} />
}

function Page({ id }: { id: string }) {
  const { project } = useProject()
  const all = useSummaries(true)
  useEffect(() => {
    document.title = `${project.name}, schemes - Geotome`
  }, [project.name])
  const shown = all.filter((s) => !s.aside)
  return (
    <main
      className="h-full overflow-auto bg-paper px-8 py-6 print:h-auto print:overflow-visible print:px-0"
      data-summary={all.length}
    >
      <header className="mb-5 flex items-center gap-4">
        <Wordmark />
        <h1 className="text-[20px] font-semibold">{project.name}, schemes</h1>
        <span className="flex-1" />
        <Link className="btn btn-sm print:hidden" to={`/p/${id}/slice`}>
          Back to the project
        </Link>
        <button className="btn btn-sm gap-1 print:hidden" onClick={() => window.print()}>
          <Printer size={14} /> Print
        </button>
      </header>
      {all.length === 0 && <p className="text-ink2">Computing all schemes ...</p>}
      <div className="grid grid-cols-[repeat(auto-fill,minmax(270px,1fr))] gap-5">
        {shown.map((s) => (
          <Card key={s.scheme} summary={s} />
        ))}
      </div>
      {shown.length > 1 && (
        <section className="mt-8 max-w-4xl break-inside-avoid">
          <h2 className="eyebrow mb-2">Areas by use</h2>
          <Suspense fallback={null}>
            <Chart schemes={shown} />
          </Suspense>
        </section>
      )}
    </main>
  )
}

/** A scheme: its picture, ten figures, its uses, and how it stands to the brief. */
function Card({ summary: s }: { summary: SchemeSummary }) {
  const { project } = useProject()
  const uses = useUses()
  const area = (v: number) => showQuantity(v, 'area', project)
  const missed = s.brief.filter((b) => b.state !== 'met')
  return (
    <article className="break-inside-avoid border-t-2 border-ink pt-2" data-summary-of={s.name}>
      <h2 className="text-[15px] font-semibold">{s.name}</h2>
      <SketchPicture sketch={s.sketch} />
      {s.brief.length > 0 && (
        <p className={`py-1.5 text-[12.5px] ${missed.length ? 'font-medium text-warn' : 'text-ink2'}`} data-brief-said>
          {missed.length === 0
            ? 'Meets the brief.'
            : missed
                .map((b) =>
                  b.now === null
                    ? `${b.line.name}: not known`
                    : `${b.line.name} ${showFigure(project, b.line.of, Math.abs(b.by))} ${b.state}`,
                )
                .join('; ')}
        </p>
      )}
      <dl className="text-[12.5px]">
        {SCHEME_FIGURES.map(({ label, of, show, without }) => {
          const value = of(s)
          return (
            <div key={label} className="row">
              <dt className="text-ink2">{label}</dt>
              <dd className="font-semibold tabular-nums">{value === null ? without : show(value, project)}</dd>
            </div>
          )
        })}
        {uses
          .filter((u) => (s.uses[u.id] ?? 0) > 0.005)
          .map((u) => (
            <div key={u.id} className="row items-center">
              <dt className="inline-flex items-center gap-2">
                <UseMark use={u} order={uses.indexOf(u)} /> {u.name}
              </dt>
              <dd className="tabular-nums">{area(s.uses[u.id] ?? 0)}</dd>
            </div>
          ))}
      </dl>
      <p className="pt-1 text-[12px] text-ink2">
        {s.findings} {s.findings === 1 ? 'finding' : 'findings'}
      </p>
    </article>
  )
}
