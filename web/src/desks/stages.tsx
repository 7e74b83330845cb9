import type { MeasureKind, Project, Scheme } from '@geotome/core/project'
import { useMemo, useCallback } from 'react'
import { useKeys } from '../app/hooks'
import { useAppDispatch, useAppSelector } from '../app/store'
import { catchEdges } from '../form/catch-edges'
import { useDraw } from '../form/use-draw'
import { drawHint } from '../form/draw-state'
import { type DrawPurpose } from '../form/draw-state'
import { type DrawKind } from '../form/draw-state'
import { Stage } from '../stage/Stage'
import { Verbs } from './Verbs'
import { toolTaken, measuringChosen } from '../app/view-slice'
import { useMeasure } from '../stage/use-measure'

/** The stage while a mass is drawn. */
export function DrawingStage({
  desk,
  kind,
  purpose,
  holeIn,
  level,
  project,
  scheme,
  onExport,
  onImport,
}: {
  desk: string
  kind: DrawKind
  purpose: DrawPurpose
  holeIn: string | null
  level: string
  project: Project
  scheme: Scheme
  onExport: () => void
  onImport: () => void
}) {
  const known = useMemo(() => new Set(Object.keys(scheme.masses)), []) // eslint-disable-line react-hooks/exhaustive-deps
  const edges = useMemo(() => catchEdges(project, scheme, (id) => !known.has(id)), [project, scheme, known])
  const drawing = useDraw(
    kind,
    holeIn,
    project,
    scheme,
    level,
    edges,
    purpose,
    useAppSelector((s) => s.view.wing),
  )
  const keys = useCallback(
    (e: KeyboardEvent, typing: boolean) => {
      if (typing) return
      if (e.key === 'Escape') {
        e.preventDefault()
        e.stopImmediatePropagation()
        drawing.back()
      }
      if (e.key === 'Enter') {
        e.preventDefault()
        drawing.accept(true)
      }
      // What is typed goes into the live fields, wherever the focus is.
      if (/^[\d.('"-]$/.test(e.key) && !e.ctrlKey && !e.metaKey && !e.altKey)
        document.querySelector<HTMLInputElement>('[data-live] input')?.focus({ preventScroll: true })
      if (
        e.key.toLowerCase() === 'a' &&
        !e.ctrlKey &&
        !e.metaKey &&
        drawing.state.kind === 'polygon' &&
        drawing.state.points.length > 0
      ) {
        e.preventDefault()
        e.stopImmediatePropagation()
        drawing.nextSideKind()
      }
    },
    [drawing],
  )
  useKeys(keys)
  return (
    <>
      <Stage desk={desk} drawing={drawing} />
      <Verbs
        desk={desk}
        hint={drawHint(drawing.state, holeIn ? (scheme.masses[holeIn]?.name ?? null) : null, purpose)}
        onExport={onExport}
        onImport={onImport}
      />
    </>
  )
}

/** The stage while points are picked to be measured. */
export function MeasuringStage({
  desk,
  kind,
  project,
  onExport,
  onImport,
}: {
  desk: string
  kind: MeasureKind
  project: Project
  onExport: () => void
  onImport: () => void
}) {
  const dispatch = useAppDispatch()
  const leave = useCallback(() => {
    dispatch(toolTaken(null))
  }, [dispatch])
  const measure = useMeasure(kind, project, leave)
  const keys = useCallback(
    (e: KeyboardEvent, typing: boolean) => {
      if (typing) return
      if (e.key === 'Escape') {
        e.preventDefault()
        e.stopImmediatePropagation()
        measure.back()
      }
      if (e.key === 'Enter') {
        e.preventDefault()
        measure.done()
      }
    },
    [measure],
  )
  useKeys(keys)
  return (
    <>
      <Stage desk={desk} drawing={null} measure={measure} />
      <div
        className="absolute inset-x-0 bottom-[92px] z-10 flex justify-center gap-1"
        role="group"
        aria-label="What is measured"
      >
        {(Object.keys(MEASURE_HINTS) as MeasureKind[]).map((k) => (
          <button key={k} className="pill" aria-pressed={k === kind} onClick={() => dispatch(measuringChosen(k))}>
            {k}
          </button>
        ))}
      </div>
      <Verbs desk={desk} hint={MEASURE_HINTS[kind]} onExport={onExport} onImport={onImport} />
    </>
  )
}

export const MEASURE_HINTS: Record<MeasureKind, string> = {
  distance: 'Click two points, in any view: corners are caught. Escape goes back',
  rise: 'Click a lower and a higher point: their difference in height is kept',
  angle: 'Click the end of one leg, the corner, and the end of the other leg',
  radius: 'Click three points on the curve',
  area: 'Click the corners in turn, Enter closes',
}
