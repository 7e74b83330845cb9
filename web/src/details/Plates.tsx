import { memo, useEffect, useMemo, useState } from 'react'
import { areaSign, showNumber, showQuantity } from '@geotome/core/project'
import type { PlateFigures, PlatesBy } from '@geotome/core/study'
import { useOf, useShownAs, useStudy } from '../app/hooks'
import { store, useAppDispatch } from '../app/store'
import { workerReady } from '../app/study-loop'
import { litUp } from '../app/view-slice'
import { Figure, Section } from '../common/fields'
import { NumField } from '../common/NumField'
import { studyWorker } from '../worker/client'

const WAYS: { by: PlatesBy; label: string }[] = [
  { by: 'mass', label: 'mass' },
  { by: 'use', label: 'use' },
  { by: 'wing', label: 'wing' },
  { by: 'all', label: 'all as one' },
]

/** The plates of a level by mass, use or wing, or as one: area, depth to a facade, facade, centroid; the one that is pointed at is lit up. */
export function Plates({ level }: { level: string }) {
  const dispatch = useAppDispatch()
  const id = useOf(({ scheme }) => scheme.id)
  const shownAs = useShownAs()
  const study = useStudy()
  const [by, setBy] = useState<PlatesBy>('mass')
  const [above, setAbove] = useState(0)
  const [plates, setPlates] = useState<PlateFigures[]>([])
  useEffect(() => {
    let mine = true
    // What is dragged has its plates when it rests: the figures of the floors come first.
    const wait = setTimeout(
      () => {
        void workerReady()
          .then(() => studyWorker.plates(id, level, by, above, store.getState().project.preview))
          .then((found) => mine && setPlates(found))
          .catch(() => mine && setPlates([]))
      },
      store.getState().project.preview ? 500 : 120,
    )
    return () => {
      mine = false
      clearTimeout(wait)
    }
  }, [study?.floors, id, level, by, above])
  useEffect(() => () => void dispatch(litUp(null)), [dispatch])
  const rows = useMemo(
    () => plates.map((p) => <Plate key={p.of ?? ''} plate={p} level={level} shownAs={shownAs} />),
    [plates, level, shownAs],
  )
  if (plates.length === 0 && above === 0) return null
  return (
    <Section
      title="Plates"
      aside={
        <select
          aria-label="plates by"
          className="cursor-pointer rounded bg-transparent text-[12px] font-semibold"
          value={by}
          onChange={(e) => setBy(e.target.value as PlatesBy)}
        >
          {WAYS.map((w) => (
            <option key={w.by} value={w.by} className="bg-panel text-ink">
              by {w.label}
            </option>
          ))}
        </select>
      }
    >
      <NumField label="cut above the level by" value={above} onAccept={(_, value) => setAbove(Math.max(0, value))} />
      {plates.length === 0 && <p className="mb-1 text-[12px] text-ink2">Nothing is cut there.</p>}
      {rows}
    </Section>
  )
}

/** A plate by its name and area; its other figures when it is opened. */
const Plate = memo(function Plate({
  plate: p,
  level,
  shownAs,
}: {
  plate: PlateFigures
  level: string
  shownAs: ReturnType<typeof useShownAs>
}) {
  const dispatch = useAppDispatch()
  const [isOpen, setOpen] = useState(false)
  const length = (v: number) => showQuantity(v, 'length', shownAs)
  return (
    <details
      className="mb-1.5 rounded-md border border-line px-2.5 py-1.5"
      data-plate={p.name}
      onToggle={(e) => setOpen(e.currentTarget.open)}
      onMouseEnter={() => dispatch(litUp({ level, on: p.region, off: [] }))}
      onMouseLeave={() => dispatch(litUp(null))}
    >
      <summary className="flex cursor-pointer justify-between gap-2">
        <span className="min-w-0 truncate">{p.name}</span>
        <b className="shrink-0 tabular-nums">
          {showNumber(p.area, 'area', shownAs)} {areaSign(shownAs)}
        </b>
      </summary>
      {isOpen && (
        <>
          <Figure label="greatest depth to a facade">
            <span data-figure="depth">{length(p.depth)}</span>
          </Figure>
          <Figure label="along facades">{length(p.facade)}</Figure>
          <Figure label="perimeter">{length(p.perimeter)}</Figure>
          <Figure label="centroid">
            {showNumber(p.centroid[0], 'length', shownAs)}, {showNumber(p.centroid[1], 'length', shownAs)}
          </Figure>
          {p.holes > 0 && <Figure label="holes">{p.holes}</Figure>}
          {p.double && <Figure label="double height">the next storey is not taken</Figure>}
        </>
      )}
    </details>
  )
})
