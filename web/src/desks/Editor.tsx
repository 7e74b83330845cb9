import { useCallback, useEffect, useLayoutEffect, useState } from 'react'
import { Navigate, useNavigate, useParams, useSearchParams } from 'react-router'
import { useKeys, useProject, useStudy, useViewState } from '../app/hooks'
import { Problem } from '../app/api'
import { closeProject, openProject, stepBack, tryEdit } from '../app/session'
import { startStudyLoop } from '../app/study-loop'
import { useAppDispatch, useAppSelector } from '../app/store'
import { benchOpened, levelShown, picked, proposed, sheetOpened, toolTaken, viewsToggled } from '../app/view-slice'
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
import { arrived } from './after-desk'
import { ExportDialog } from './ExportDialog'
import { Find } from './Find'
import { ImportDialog } from './ImportDialog'
import { Header } from './Header'
import { useVerbs, Verbs } from './Verbs'
import { Wordmark } from '../common/Wordmark'
import { DrawingStage, MeasuringStage } from './stages'

const DESKS = ['ground', 'form', 'slice', 'fabric', 'light', 'sheets']
const COMING: Record<string, string> = {
  light: 'Sun, shadows and hours of sun come to this desk later.',
  sheets: 'Plans, sections and schedules to scale come to this desk later; exports are at the Slice and Fabric desks.',
}

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
    const stop = startStudyLoop()
    return () => {
      stop()
      closeProject()
    }
  }, [id, moment])
  if (!DESKS.includes(desk)) return <Navigate to={`/p/${id}/slice`} replace />
  if (fault)
    return (
      <main className="grid h-full place-items-center">
        <div className="max-w-sm text-center">
          <Wordmark />
          <p className="my-4">{fault}</p>
          <a className="act" href="/">
            All projects
          </a>
        </div>
      </main>
    )
  if (!open) return <main className="grid h-full place-items-center text-ink2">Opening the project ...</main>
  return <Desk id={id} desk={desk} />
}

function Desk({ id, desk }: { id: string; desk: string }) {
  const dispatch = useAppDispatch()
  const navigate = useNavigate()
  const { project, scheme } = useProject()
  const study = useStudy()
  const { tool, holeIn, level, sheet, proposing, viewsOpen } = useViewState(
    'tool',
    'holeIn',
    'level',
    'sheet',
    'proposing',
    'viewsOpen',
  )
  const now = useAppSelector((s) => s.view.picked)
  const [exporting, setExporting] = useState(false)
  const [importing, setImporting] = useState(false)
  const [finding, setFinding] = useState(false)
  const onExport = useCallback(() => setExporting(true), [])
  const onImport = useCallback(() => setImporting(true), [])
  const drawTool = desk === 'form' || desk === 'ground' ? tool : null
  const { measuring, bench } = useViewState('measuring', 'bench')

  useEffect(() => {
    document.title = `${project.name}, ${desk} - Geotome`
  }, [project.name, desk])
  // A level to look at from the start: the storey at the datum, or the lowest.
  useEffect(() => {
    if (!study || (level && study.levels.some((l) => l.id === level))) return
    const storeys = study.levels.filter((l) => l.kind === 'storey')
    const start =
      desk === 'slice'
        ? storeys[Math.floor(storeys.length / 2)]
        : (storeys.find((l) => Math.abs(l.height) < 1e-6) ?? storeys[0])
    if (start) dispatch(levelShown(start.id))
  }, [study, level, desk, dispatch])
  // Before the desk is on screen: a key that is pressed as soon as it is seen must find it ready, and not be put down with the rest.
  useLayoutEffect(() => {
    dispatch(toolTaken(null))
    dispatch(proposed(null))
    dispatch(benchOpened(null))
    tryEdit(null)
    arrived(desk)
  }, [desk, dispatch])

  usePictureDrop()
  const verbs = useVerbs(desk, onExport, onImport)
  const keys = useCallback(
    (e: KeyboardEvent, typing: boolean) => {
      const command = e.ctrlKey || e.metaKey
      if (command && e.key.toLowerCase() === 'z' && !typing) {
        e.preventDefault()
        void stepBack(e.shiftKey ? 'redo' : 'undo')
        return
      }
      if (command && e.key.toLowerCase() === 'k') {
        e.preventDefault()
        setFinding(true)
        return
      }
      if (command && e.key.toLowerCase() === 'y' && !typing) {
        e.preventDefault()
        void stepBack('redo')
        return
      }
      if (typing || command || e.altKey || document.querySelector('dialog[open]')) return
      // While something is drawn digits are lengths.
      if (/^[1-6]$/.test(e.key) && !drawTool && !bench) {
        void navigate(`/p/${id}/${DESKS[Number(e.key) - 1]}`)
        return
      }
      if (e.key.toLowerCase() === 'l' || e.key.toLowerCase() === 'n' || e.key.toLowerCase() === 't') {
        const which = ({ l: 'ledger', n: 'findings', t: 'levels' } as const)[e.key.toLowerCase() as 'l']
        dispatch(sheetOpened(sheet === which ? null : which))
        return
      }
      if (e.key.toLowerCase() === 'v') {
        dispatch(viewsToggled(!viewsOpen))
        return
      }
      if (e.key.toLowerCase() === 'f') {
        document.querySelector<HTMLButtonElement>('[data-fit]')?.click()
        return
      }
      if (e.key === 'Escape') {
        if (bench) dispatch(benchOpened(null))
        else if (sheet) dispatch(sheetOpened(null))
        else if (proposing) dispatch(proposed(null))
        else dispatch(picked({ kind: 'nothing' }))
        return
      }
      if ((e.key === 'Delete' && desk !== 'form') || bench) return
      const verb = verbs.find((v) => v.key?.toLowerCase() === e.key.toLowerCase())
      if (verb && !verb.off && !(e.key === 'Delete' && now.kind !== 'mass')) {
        e.preventDefault()
        verb.run()
      }
    },
    [bench, desk, dispatch, drawTool, id, navigate, now.kind, proposing, sheet, verbs, viewsOpen],
  )
  useKeys(keys)

  return (
    <div className="flex h-full flex-col">
      <Header id={id} onFind={() => setFinding(true)} />
      <div className="flex min-h-0 flex-1">
        <Spine />
        <main className="relative flex min-w-0 flex-1 flex-col">
          {bench ? (
            <Bench key={`${bench.picture} ${bench.task}`} picture={bench.picture} task={bench.task} />
          ) : drawTool === 'measure' ? (
            <MeasuringStage
              key={measuring}
              desk={desk}
              kind={measuring}
              project={project}
              onExport={onExport}
              onImport={onImport}
            />
          ) : drawTool ? (
            <DrawingStage
              key={`${drawTool} ${holeIn}`}
              desk={desk}
              kind={drawTool === 'site' || drawTool === 'neighbour' || drawTool === 'wing' ? 'polygon' : drawTool}
              purpose={drawTool === 'site' || drawTool === 'neighbour' || drawTool === 'wing' ? drawTool : 'mass'}
              holeIn={holeIn}
              level={level ?? ''}
              project={project}
              scheme={scheme}
              onExport={onExport}
              onImport={onImport}
            />
          ) : (
            <>
              <Stage desk={desk} drawing={null} />
              {COMING[desk] ? (
                <p className="absolute inset-x-0 bottom-6 text-center text-ink2">
                  <span className="rounded bg-paper px-3 py-1">{COMING[desk]}</span>
                </p>
              ) : (
                <Verbs
                  desk={desk}
                  hint={hintFor(desk, now.kind, study?.masses.length ?? 0, proposing !== null)}
                  onExport={onExport}
                  onImport={onImport}
                />
              )}
            </>
          )}
          <ViewsPanel desk={desk} />
          <Dependents />
          <OpenSheet />
        </main>
        {!bench && <Details desk={desk} />}
      </div>
      <Figures />
      {finding && <Find onClose={() => setFinding(false)} onExport={onExport} onImport={onImport} />}
      {importing && <ImportDialog onClose={() => setImporting(false)} />}
      {exporting && <ExportDialog onClose={() => setExporting(false)} />}
    </div>
  )
}

function hintFor(desk: string, picked: string, masses: number, proposing: boolean): string {
  if (desk === 'ground')
    return picked === 'picture'
      ? 'Calibrate it, measure on it, or trace it; its places and how it is tied are at the right'
      : 'Draw the site or read it from a file; drop or paste a picture anywhere'
  if (masses === 0)
    return desk === 'form'
      ? 'Take Rectangle, Polygon or Circle, and draw the first mass'
      : 'Nothing is drawn yet: begin at the Form desk'
  if (desk === 'form')
    return picked === 'mass'
      ? 'Drag it to move it; dots move its corners, the arrow its height, the ring turns it'
      : 'Click a mass to pick it, Shift-click a second one to join them'
  if (desk === 'slice') return 'Click a floor in the spine to bring the blade there, or drag its level'
  return proposing
    ? 'Choose build-ups at the right, then make the parts'
    : picked === 'part'
      ? 'Change its build-up at the right'
      : 'Click a wall, slab or roof to pick it'
}
