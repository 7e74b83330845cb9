import { useEffect, useLayoutEffect, useState, type ReactNode } from 'react'
import { Navigate, useParams, useSearchParams } from 'react-router'
import { useOf, useStudy } from '../app/hooks'
import { Problem } from '../app/api'
import { closeProject, openProject, tryEdit } from '../app/session'
import { startFaceFollow } from '../app/face-follow'
import { startLastDone } from '../app/last-done'
import { startStudyLoop } from '../app/study-loop'
import { useAppDispatch, useAppSelector } from '../app/store'
import { benchOpened, levelShown, proposed, toolTaken } from '../app/view-slice'
import { selectProject } from '../app/project-slice'
import { Details } from '../details/Details'
import { Figures } from '../figures/Figures'
import { OpenSheet } from '../figures/Sheets'
import { usePictureDrop } from '../picture/use-picture-drop'
import { Spine } from '../spine/Spine'
import { Bench } from '../picture/Bench'
import { Stage } from '../stage/Stage'
import { ViewsPanel } from '../views/ViewsPanel'
import { Dependents } from '../figures/Dependents'
import { useKeymap } from '../verbs/use-keymap'
import { VerbBar } from '../verbs/VerbBar'
import { Guarded } from '../common/Guarded'
import { Wordmark } from '../common/Wordmark'
import { arrived } from './after-desk'
import { Header } from './Header'
import { DESKS, deskOf, type Desk } from './list'
import { OpenDialogs } from './OpenDialogs'

/** One open project at one of its desks. */
export default function Editor() {
  const { id = '', desk = '' } = useParams()
  const open = useAppSelector((s) => selectProject(s)?.id ?? null)
  const [fault, setFault] = useState<string | null>(null)
  const [search] = useSearchParams()
  const moment = search.get('at')
  useEffect(() => {
    setFault(null)
    openProject(id, moment === null ? null : Number(moment)).catch((e: unknown) =>
      setFault(e instanceof Problem ? e.message : 'The project could not be opened. Reload the page.'),
    )
    const stops = [startStudyLoop(), startFaceFollow(), startLastDone()]
    return () => {
      for (const stop of stops) stop()
      closeProject()
    }
  }, [id, moment])
  if (!DESKS.some((d) => d.name === desk)) return <Navigate to={`/p/${id}/slice`} replace />
  if (fault)
    return (
      <main className="grid h-full place-items-center">
        <div className="max-w-sm text-center">
          <Wordmark />
          <p className="my-4">{fault}</p>
          <a className="btn btn-sm" href="/">
            All projects
          </a>
        </div>
      </main>
    )
  if (!open) return <main className="grid h-full place-items-center text-ink2">Opening the project ...</main>
  return <AtDesk id={id} desk={deskOf(desk)} />
}

function AtDesk({ id, desk }: { id: string; desk: Desk }) {
  const dispatch = useAppDispatch()
  const name = useOf(({ project }) => project.name)
  const bench = useAppSelector((s) => s.view.bench)
  // What stands at the foot of the stage stays clear of the verbs, which a sheet covers.
  const sheet = useAppSelector((s) => s.view.sheet !== null)

  useEffect(() => {
    document.title = `${name}, ${desk.name} - Geotome`
  }, [name, desk])
  // Before the desk is on screen: a key that is pressed as soon as it is seen must find it ready, and not be put down with the rest.
  useLayoutEffect(() => {
    dispatch(toolTaken(null))
    dispatch(proposed(null))
    dispatch(benchOpened(null))
    tryEdit(null)
    arrived(desk.name)
  }, [desk, dispatch])

  const seq = useAppSelector((s) => `${s.project.seq} ${s.project.pending.length}`)
  const retry = `${desk.name} ${seq}`
  const guarded = (what: string, children: ReactNode) => (
    <Guarded what={what} retry={retry}>
      {children}
    </Guarded>
  )

  usePictureDrop()
  useKeymap()

  return (
    <div className="flex h-full flex-col">
      <Header id={id} />
      <div className="flex min-h-0 flex-1">
        {guarded('The spine', <Spine />)}
        <main className={`relative flex min-w-0 flex-1 flex-col ${sheet ? '[--foot:10px]' : '[--foot:106px]'}`}>
          {bench ? (
            guarded(
              'The bench',
              <Bench key={`${bench.picture} ${bench.task}`} picture={bench.picture} task={bench.task} />,
            )
          ) : (
            <>
              {guarded('The stage', <Stage at={desk.stage} />)}
              {desk.coming ? (
                <p className="absolute inset-x-0 bottom-6 text-center text-ink2">
                  <span className="rounded bg-paper px-3 py-1">{desk.coming}</span>
                </p>
              ) : (
                guarded('The verbs', <VerbBar />)
              )}
            </>
          )}
          {guarded('The list of views', <ViewsPanel at={desk.stage} />)}
          {guarded('The list of what hangs on it', <Dependents />)}
          {guarded('The sheet', <OpenSheet />)}
        </main>
        {!bench && guarded('The details', <Details desk={desk} />)}
      </div>
      <StartLevel desk={desk} />
      {guarded('The figures', <Figures />)}
      {guarded('The dialog', <OpenDialogs />)}
    </div>
  )
}

/** Brings the blade to the level that a desk starts at, where none is looked at. */
function StartLevel({ desk }: { desk: Desk }) {
  const dispatch = useAppDispatch()
  const study = useStudy()
  const level = useAppSelector((s) => s.view.level)
  useEffect(() => {
    if (!study || (level && study.levels.some((l) => l.id === level))) return
    const storeys = study.levels.filter((l) => l.kind === 'storey')
    const start =
      desk.starts === 'middle'
        ? storeys[Math.floor(storeys.length / 2)]
        : (storeys.find((l) => Math.abs(l.height) < 1e-6) ?? storeys[0])
    if (start) dispatch(levelShown(start.id))
  }, [study, level, desk, dispatch])
  return null
}
