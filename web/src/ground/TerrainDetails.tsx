import { Trash2 } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { inOrder, showNumber, type Neighbour } from '@geotome/core/project'
import { api, Problem } from '../app/api'
import { useProject, useStudy } from '../app/hooks'
import { makeEdit } from '../app/session'
import { workerReady } from '../app/study-loop'
import { useAppDispatch } from '../app/store'
import { toolTaken } from '../app/view-slice'
import { orSay } from '../common/refused'
import { ChoiceField, Figure, NameField, Section } from '../common/fields'
import { NumField } from '../common/NumField'
import { studyWorker } from '../worker/client'
import { SiteImport } from './SiteImport'
import { tellFault } from '../common/tell'

/** Terrain: level, or surveyed; where its points come from; what it says along every mass's foot; and the neighbours. */
export function TerrainDetails() {
  const dispatch = useAppDispatch()
  const { project } = useProject()
  const study = useStudy()
  const [reading, setReading] = useState(false)
  const { terrain } = project
  const ground = study?.ground
  const z = (v: number) => showNumber(v, 'length', project)
  const set = (label: string, t: typeof terrain) => makeEdit(label, { edit: 'project.change', set: { terrain: t } })
  return (
    <>
      <Section title="Terrain">
        <ChoiceField
          label="it is"
          value={terrain?.kind ?? 'none'}
          options={[
            { value: 'none', label: 'not known' },
            { value: 'level', label: 'level' },
            ...(terrain?.kind === 'survey' ? [{ value: 'survey' as const, label: 'surveyed' }] : []),
          ]}
          onChange={(kind) => {
            if (kind !== 'survey') set('terrain', kind === 'level' ? { kind, height: 0 } : null)
          }}
        />
        {terrain?.kind === 'level' && (
          <NumField
            label="height"
            value={terrain.height}
            onAccept={(height) => set('terrain height', { kind: 'level', height })}
          />
        )}
        {terrain?.kind === 'survey' && ground?.terrain && (
          <>
            <Figure label={terrain.name}>
              <span data-figure="terrain-points">{ground.terrain.points.toLocaleString('en')}</span> points
            </Figure>
            <Figure label="lowest, highest">
              {z(ground.terrain.low)} to {z(ground.terrain.high)}
            </Figure>
            <Figure label="contours every">{z(ground.terrain.apart)}</Figure>
            {ground.terrain.lost > 0 && (
              <p className="text-[12px] text-warn">{ground.terrain.lost} pieces of lines could not be kept as edges.</p>
            )}
          </>
        )}
        {ground?.missing && (
          <p role="alert" className="mb-2 text-[12px] text-warn">
            The survey is not stored on this server. Read it from its file again, or open the project from a .geotome
            file.
          </p>
        )}
        <div className="mt-2 flex flex-col gap-1.5">
          <button className="btn btn-sm" onClick={() => setReading(true)}>
            Read a survey
          </button>
          <Sources />
        </div>
      </Section>
      {terrain && <GroundAt />}
      {ground && Object.keys(ground.feet).length > 0 && (
        <Section title="Tops above ground">
          <p className="mb-1 text-[12px] text-ink2">from the lowest, the mean and the highest ground along each foot</p>
          {study.masses
            .filter((m) => ground.feet[m.id] && m.top > 1e-6)
            .map((m) => {
              const f = ground.feet[m.id]
              return (
                f && (
                  <Figure key={m.id} label={m.name}>
                    {z(f.above.lowest)} / {z(f.above.mean)} / {z(f.above.highest)}
                  </Figure>
                )
              )
            })}
        </Section>
      )}
      <Section
        title="Neighbours"
        aside={
          <button
            className="cursor-pointer text-[12px] text-ink2 underline"
            onClick={() => dispatch(toolTaken({ tool: 'polygon', becomes: 'neighbour' }))}
          >
            draw one
          </button>
        }
      >
        {inOrder(project.neighbours).map((n) => (
          <NeighbourFields key={n.id} neighbour={n} top={ground?.neighbours.find((x) => x.id === n.id)?.top ?? null} />
        ))}
        {Object.keys(project.neighbours).length === 0 && (
          <p className="text-ink2">Drawn, or read from GeoJSON or DXF; never counted.</p>
        )}
      </Section>
      {reading && <SiteImport onClose={() => setReading(false)} />}
    </>
  )
}

/** The ground's height anywhere: at a typed place. */
function GroundAt() {
  const { project, scheme } = useProject()
  const [at, setAt] = useState<{ x: number; y: number }>({ x: 0, y: 0 })
  const [height, setHeight] = useState<number | null | undefined>(undefined)
  const asset = project.terrain?.kind === 'survey' ? project.terrain.asset : JSON.stringify(project.terrain)
  useEffect(() => {
    let here = true
    void (async () => {
      await workerReady()
      const found = await orSay(studyWorker.groundAt(scheme.id, at.x, at.y))
      if (here) setHeight(found)
    })()
    return () => {
      here = false
    }
  }, [scheme.id, at, asset])
  return (
    <Section title="Ground at a place">
      <div className="grid grid-cols-2 gap-1.5">
        <NumField label="east" name="ground east" compact value={at.x} onAccept={(_, x) => setAt({ ...at, x })} />
        <NumField label="north" name="ground north" compact value={at.y} onAccept={(_, y) => setAt({ ...at, y })} />
      </div>
      <Figure label="its height">
        <span data-figure="ground-at">
          {height === undefined ? '' : height === null ? 'beyond the survey' : showNumber(height, 'length', project)}
        </span>
      </Figure>
    </Section>
  )
}

function NeighbourFields({ neighbour: n, top }: { neighbour: Neighbour; top: number | null }) {
  const { project } = useProject()
  const set = (label: string, fields: Partial<Neighbour>) =>
    makeEdit(`${label} of ${n.name}`, { edit: 'neighbour.change', id: n.id, set: fields })
  return (
    <details className="mb-1.5 rounded-md border border-line px-2.5 py-1.5" data-neighbour={n.name}>
      <summary className="cursor-pointer">
        {n.name}
        <span className="float-right text-ink2">{top === null ? '' : `to ${showNumber(top, 'length', project)}`}</span>
      </summary>
      <div className="mt-1.5">
        <NameField label="name" value={n.name} onAccept={(name) => set('name', { name })} />
        <NumField label="height" value={n.height} onAccept={(height) => set('height', { height })} />
        {n.base === null ? (
          <button className="cursor-pointer text-[12px] text-ink2 underline" onClick={() => set('foot', { base: 0 })}>
            stands on the ground; give its foot a height
          </button>
        ) : (
          <NumField label="foot at" value={n.base} onAccept={(base) => set('foot', { base })} />
        )}
        <button
          className="mt-1 flex cursor-pointer items-center gap-1 text-[12px] text-ink2 hover:text-error"
          onClick={() => makeEdit(`remove ${n.name}`, { edit: 'neighbour.remove', id: n.id })}
        >
          <Trash2 size={12} /> remove
        </button>
      </div>
    </details>
  )
}

/** The scanner on the site and the service for heights: simulated ones that ship with the application. */
function Sources() {
  const { project } = useProject()
  const study = useStudy()
  const [got, setGot] = useState<number | null>(null)
  const stop = useRef<AbortController | null>(null)
  const extent = () => {
    const ring = study?.ground.site?.ring ?? study?.masses.flatMap((m) => m.outline) ?? []
    const [ox, oy] = study?.origin ?? [0, 0]
    const xs = ring.length ? ring.map((p) => p[0] + ox) : [-20, 80],
      ys = ring.length ? ring.map((p) => p[1] + oy) : [-20, 60]
    return {
      x0: Math.floor(Math.min(...xs) - 15),
      y0: Math.floor(Math.min(...ys) - 15),
      x1: Math.ceil(Math.max(...xs) + 15),
      y1: Math.ceil(Math.max(...ys) + 15),
    }
  }
  const keep = async (name: string, flat: number[]) => {
    const { hash } = await api.putAsset(await studyWorker.packPoints(Float64Array.from(flat)))
    makeEdit(`ground from ${name}`, {
      edit: 'project.change',
      set: { terrain: { kind: 'survey', asset: hash, name, points: flat.length / 3, lines: 0 } },
    })
  }
  const scan = async () => {
    const control = (stop.current = new AbortController())
    setGot(0)
    try {
      const flat: number[] = []
      const { x0, y0, x1, y1 } = extent()
      const response = await fetch(`/api/stand-ins/scanner?x0=${x0}&y0=${y0}&x1=${x1}&y1=${y1}&count=600`, {
        signal: control.signal,
      })
      const reader = response.body?.pipeThrough(new TextDecoderStream()).getReader()
      let rest = ''
      for (;;) {
        const { value, done } = await (reader?.read() ?? { value: undefined, done: true })
        const lines = (rest + (value ?? '')).split('\n')
        rest = done ? '' : (lines.pop() ?? '')
        for (const line of lines) if (line.trim()) flat.push(...(JSON.parse(line) as number[]))
        setGot(flat.length / 3)
        if (done) break
      }
      await keep('scanner (simulated)', flat)
    } catch (e) {
      if (e instanceof Problem) tellFault(e.message)
      else if (!control.signal.aborted) tellFault('The scanner broke off; nothing was taken. Start it again.')
    } finally {
      setGot(null)
    }
  }
  const ask = async () => {
    const { latitude, longitude } = project.location
    if (latitude === null || longitude === null) {
      tellFault('The service needs to know where the project lies. Type latitude and longitude under Project first.')
      return
    }
    try {
      const { x0, y0, x1, y1 } = extent()
      const response = await fetch(
        `/api/stand-ins/heights?latitude=${latitude}&longitude=${longitude}&x0=${x0}&y0=${y0}&x1=${x1}&y1=${y1}&step=5`,
      )
      const grid = (await response.json()) as { x0: number; y0: number; step: number; nx: number; heights: number[] }
      if (!response.ok) {
        tellFault('The service has no heights for this place.')
        return
      }
      await keep(
        'heights service (simulated)',
        grid.heights.flatMap((h, i) => [
          grid.x0 + (i % grid.nx) * grid.step,
          grid.y0 + Math.floor(i / grid.nx) * grid.step,
          h,
        ]),
      )
    } catch (e) {
      tellFault(e instanceof Problem ? e.message : 'The service does not answer. Try again.')
    }
  }
  return (
    <>
      {got === null ? (
        <button className="btn btn-sm" onClick={() => void scan()}>
          Receive from the scanner
        </button>
      ) : (
        <button className="btn btn-sm" onClick={() => stop.current?.abort()}>
          {got} points received; stop
        </button>
      )}
      <button className="btn btn-sm" onClick={() => void ask()}>
        Ask the heights service
      </button>
      <p className="text-[11px] text-ink2">Scanner and service are simulated stand-ins: what they give is made up.</p>
    </>
  )
}
