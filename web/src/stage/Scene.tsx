import { useFrame, useThree } from '@react-three/fiber'
import { useEffect, useMemo, useRef } from 'react'
import { LineSegments2 } from 'three/examples/jsm/lines/LineSegments2.js'
import type { LineMaterial } from 'three/examples/jsm/lines/LineMaterial.js'
import type { Material } from '@geotome/core/project'
import { useProject } from '../app/hooks'
import { useAppSelector } from '../app/store'
import type { Picked, Shows } from '../app/view-slice'
import {
  batchOf,
  contoursSeen,
  fillsOf,
  HERE,
  linesOf,
  outlinesOf,
  shadowOf,
  stackedOutlines,
  type Batch,
  type Placed,
} from './batches'
import { stageGeometry, type StoredView } from './geometry-store'
import { Faces, Lines, marks } from './drawn'
import { GroundScene } from './GroundScene'
import { pickable } from './picking'
import { Pictures } from './Pictures'
import type { Materials } from './materials'
import type { Palette } from './theme'

/** `shows` and `hidden` say what is drawn, and how; `camera` the direction of the 3D view, for contours; `picking` whether the pointer picks in it. */
export interface SceneProps {
  view: StoredView
  desk: string
  materials: Materials
  palette: Palette
  shows: Shows
  hidden: readonly string[]
  direction: () => readonly [number, number, number]
  picking: boolean
  /** the level of the blade, where it is not the one that the stage shows */ blade?: string | null
}

/** What is drawn: the results of the study, batched. Which objects a pane shows is told by their `pane` mark. */
export function Scene({ view: whole, desk, materials, palette, shows, hidden, direction, picking, blade }: SceneProps) {
  const invalidate = useThree((s) => s.invalidate)
  const shownLevel = useAppSelector((s) => s.view.level)
  const level = blade === undefined ? shownLevel : blade
  const picked = useAppSelector((s) => (picking ? s.view.picked : NOTHING))
  const hover = useAppSelector((s) => (picking ? s.view.hover : null))
  const fabric = desk === 'fabric'
  const view = useMemo(() => without(whole, hidden, shows), [whole, hidden, shows])
  const colours = useColours(shows.materials)

  // While only levels or figures change, what stands stays as it is, and nothing is sent to the screen again.
  const standing = useSame(view, `${fabric ? standingKey(view) : massesKey(view)} ${neighboursKey(view)}`)
  const all = useMemo(
    () => solids(standing, fabric, palette, shows, colours),
    [standing, fabric, palette, shows, colours],
  )
  const solid = useMemo(() => batchOf(all.solid, palette), [all, palette])
  const clear = useMemo(() => batchOf(all.clear, palette), [all, palette])
  const around = useMemo(() => batchOf(all.around, palette), [all, palette])
  const outlined = useMemo(
    () => batchOf(fabric && shows.fabric && shows.masses !== 'see-through' ? madeOf(standing) : [], palette),
    [standing, fabric, palette, shows],
  )
  const chosen = useMemo(
    () => highlight(view, picked.kind === 'nothing' || picked.kind === 'level' ? [] : picked.ids, palette),
    [view, picked, palette],
  )
  const under = useMemo(() => highlight(view, hover ? [hover] : [], palette), [view, hover, palette])
  const offered = stageGeometry.get(view.proposal?.mesh ?? null)
  const offer = useMemo(
    () =>
      offered
        ? batchOf([{ owner: 'offer', geometry: offered, at: HERE, tint: palette.cutsoft, strength: 0.55 }], palette)
        : null,
    [offered, palette],
  )
  const floorLines = useMemo(
    () => stackedOutlines(view.floors.map((f) => ({ plates: f.plates, z: heightOf(view, f.level) }))),
    [view],
  )
  const storey = useMemo(() => usualStorey(view), [view])
  const floor = view.floors.find((f) => f.level === level)
  const z = level ? heightOf(view, level) : 0
  const cap = useMemo(
    () => (floor ? fillsOf(floor.plates.map((p) => ({ region: p.region, z: z + 0.004 }))) : null),
    [floor, z],
  )
  const lows = useMemo(
    () => (floor && floor.lows.length ? fillsOf([{ region: floor.lows, z: z + 0.004 }]) : null),
    [floor, z],
  )
  const untaken = useMemo(
    () =>
      floor?.untaken.length && !fabric
        ? {
            faces: fillsOf([{ region: floor.untaken, z: z + 0.004 }]),
            lines: outlinesOf([{ region: floor.untaken, z: z + 0.012 }]),
          }
        : null,
    [fabric, floor, z],
  )
  const capLines = useMemo(
    () =>
      floor
        ? outlinesOf([
            ...floor.plates.map((p) => ({ region: p.region, z: z + 0.012 })),
            { region: floor.lows, z: z + 0.012 },
          ])
        : new Float32Array(),
    [floor, z],
  )
  const poche = useMemo(
    () =>
      fillsOf(
        view.parts.filter((p) => p.level === level && p.plan.length).map((p) => ({ region: p.plan, z: z + 1.21 })),
      ),
    [view, level, z],
  )
  const planLines = useMemo(
    () =>
      fabric && floor
        ? outlinesOf(
            floor.plates
              .filter((p) => !view.parts.some((q) => q.mass === p.mass && q.mesh))
              .map((p) => ({ region: p.region, z: z + 1.21 })),
          )
        : NONE,
    [fabric, floor, view, z],
  )
  const shadow = useMemo(
    () => shadowOf(solid.faces.getAttribute('position').array as Float32Array, desk === 'slice' && level ? z : 1e6),
    [solid, desk, level, z],
  )

  useEffect(() => {
    if (picking) pickable.batch = solid
  }, [solid, picking])
  useEffect(() => invalidate(), [invalidate, solid, outlined, chosen, under, offer, cap, materials, desk, view])

  return (
    <>
      <Faces geometry={shadow} material={materials.shadow} order={0} pane="3d" />
      <GroundScene view={view} desk={desk} materials={materials} palette={palette} shows={shows} />
      <Pictures view={view} shown={shows.pictures} />
      <Faces geometry={solid.faces} material={materials.faces} order={1} />
      <Lines segments={solid.edges} material={materials.ink} order={2} />
      <Contours contours={solid.contours} material={materials.ink} direction={direction} />
      <Faces geometry={around.faces} material={materials.faces} order={1} />
      <Lines segments={around.edges} material={materials.around} order={2} />
      <Contours contours={around.contours} material={materials.around} direction={direction} />
      <Faces geometry={clear.faces} material={materials.seeThrough} order={8} />
      <Lines segments={clear.edges} material={materials.ink} order={2} />
      <Contours contours={clear.contours} material={materials.ink} direction={direction} />
      <Lines segments={fabric ? NONE : floorLines} material={materials.floors} order={2} pane="space" apart={storey} />
      <Lines segments={outlined.edges} material={materials.soft} order={2} />
      <Lines segments={solid.edges} material={materials.ghost} order={3} cutOnly />
      <Lines
        segments={fabric ? NONE : floorLines}
        material={materials.ghostFloors}
        order={3}
        pane="space"
        cutOnly
        apart={storey}
      />
      <Lines segments={solid.edges} material={materials.buried} order={3} pane="3d" aboveGround />
      {offer && <Faces geometry={offer.faces} material={materials.offered} order={4} />}
      {offer && <Lines segments={offer.edges} material={materials.offeredLines} order={5} />}
      {cap && <Faces geometry={cap} material={materials.cap} order={4} cutOnly pane={fabric ? 'space' : undefined} />}
      {lows && <Faces geometry={lows} material={materials.low} order={4} cutOnly pane={fabric ? 'space' : undefined} />}
      <Lines segments={capLines} material={materials.cutLine} order={5} cutOnly pane="space" />
      {!fabric && <Lines segments={capLines} material={materials.planCutLine} order={5} cutOnly pane="plan" />}
      {untaken && <Faces geometry={untaken.faces} material={materials.untaken} order={4} cutOnly />}
      <Lines segments={untaken?.lines ?? NONE} material={materials.untakenLine} order={5} cutOnly />
      <Lines segments={planLines} material={materials.planLine} order={5} pane="plan" />
      {fabric && <Faces geometry={poche} material={materials.poche} order={5} pane="plan" />}
      <Lines segments={under.edges} material={materials.hovered} order={6} pane="space" />
      <Lines segments={under.edges} material={materials.planHovered} order={6} pane="plan" />
      <Lines segments={chosen.edges} material={materials.picked} order={7} pane="space" />
      <Lines segments={chosen.edges} material={materials.planPicked} order={7} pane="plan" />
    </>
  )
}

/** The lines along which round things turn out of sight in the 3D view, found anew when it turns. */
function Contours({
  contours,
  material,
  direction,
}: {
  contours: Float32Array
  material: LineMaterial
  direction: () => readonly [number, number, number]
}) {
  const object = useMemo(() => new LineSegments2(), [])
  const last = useRef<{ contours: Float32Array; key: string } | null>(null)
  useFrame(() => {
    const toward = direction()
    const key = toward.map((c) => c.toFixed(4)).join()
    if (last.current?.contours === contours && last.current.key === key) return
    last.current = { contours, key }
    const seen = contoursSeen(contours, toward)
    object.geometry.dispose()
    object.geometry = linesOf(seen)
  })
  object.material = material
  object.userData = marks({ order: 2, pane: '3d' })
  object.renderOrder = 2
  object.frustumCulled = false
  return <primitive object={object} />
}

const NONE = new Float32Array()
const NOTHING: Picked = { kind: 'nothing' }

/** The value as it was when its key last changed. */
function useSame<T>(value: T, key: string): T {
  const kept = useRef({ value, key })
  if (kept.current.key !== key) kept.current = { value, key }
  return kept.current.value
}
const massesKey = (view: StoredView) =>
  view.masses.map(({ id, body, at }) => `${id} ${body} ${at.x} ${at.y} ${at.z} ${at.turn}`).join()
const neighboursKey = (view: StoredView) => view.ground.neighbours.map((n) => n.body).join()
const standingKey = (view: StoredView) =>
  `${massesKey(view)} ${view.parts.map((p) => `${p.mesh} ${p.bond.status}`).join()}`

/** Masses that parts were made of: shown as an outline behind them. */
function madeOf(view: StoredView): Placed[] {
  const made = new Set(view.parts.filter((p) => p.mesh).map((p) => p.mass))
  return massItems(view, (id) => made.has(id))
}

/** What things are drawn in, by the ids of masses and the kinds of parts. */
interface Colours {
  masses: Record<string, { whole: Material | null; faces: Record<string, Material> }>
  kinds: Record<string, Material | null>
}

/** The materials of masses, their faces, and kinds of parts; nothing where the view is to be paper. */
function useColours(wanted: boolean): Colours | null {
  const { project, scheme } = useProject()
  return useMemo(() => {
    if (!wanted) return null
    const of = (id: string | null | undefined) => (id ? (project.materials[id] ?? null) : null)
    const masses = Object.fromEntries(
      Object.values(scheme.masses).map((m) => [
        m.id,
        {
          whole: of(m.material),
          faces: Object.fromEntries(
            Object.entries(m.faces).flatMap(([face, id]) => {
              const material = of(id)
              return material ? [[face, material]] : []
            }),
          ),
        },
      ]),
    )
    return { masses, kinds: Object.fromEntries(Object.entries(project.kinds).map(([kind, id]) => [kind, of(id)])) }
  }, [wanted, project.materials, project.kinds, scheme.masses])
}

/** At the Fabric desk parts stand for the masses they were made of; elsewhere the masses stand for themselves. What is seen through, and what stands around, is drawn apart. */
function solids(
  view: StoredView,
  fabric: boolean,
  palette: Palette,
  shows: Shows,
  colours: Colours | null,
): { solid: Placed[]; clear: Placed[]; around: Placed[] } {
  const parts = fabric && shows.fabric
  const made = new Set(parts ? view.parts.filter((p) => p.mesh).map((p) => p.mass) : [])
  const see = shows.masses === 'see-through'
  const dressed = (items: Placed[]) =>
    items.map((item): Placed => {
      const mass = view.masses.find((m) => m.id === item.owner)
      const own = colours?.masses[item.owner]
      return own
        ? {
            ...item,
            colour: own.whole?.colour ?? null,
            faceColours: mass?.faces.map((f) => own.faces[f.name]?.colour ?? null) ?? [],
          }
        : item
    })
  const clearMass = (id: string) => (colours?.masses[id]?.whole?.opacity ?? 1) < 1
  const masses = shows.masses === 'hidden' ? [] : dressed(massItems(view, (id) => see || !made.has(id)))
  const partItems = parts
    ? view.parts.flatMap((p): (Placed & { clear: boolean })[] => {
        const geometry = stageGeometry.get(p.mesh)
        const material = colours?.kinds[p.kind] ?? null
        return geometry
          ? [
              {
                owner: p.id,
                geometry,
                at: HERE,
                tint: p.bond.status === 'bonded' || p.bond.left ? null : palette.warn,
                strength: p.bond.status === 'loose' ? 0.7 : 0.32,
                colour: material?.colour ?? null,
                clear: (material?.opacity ?? 1) < 1,
              },
            ]
          : []
      })
    : []
  return {
    solid: [...partItems.filter((p) => !p.clear), ...(see ? [] : masses.filter((m) => !clearMass(m.owner)))],
    clear: [...partItems.filter((p) => p.clear), ...(see ? masses : masses.filter((m) => clearMass(m.owner)))],
    around: shows.context ? paled(dressed(contextItems(view)), palette) : [],
  }
}

const paled = (items: Placed[], palette: Palette): Placed[] =>
  items.map((item) => ({ ...item, tint: palette.paper, strength: 0.6 }))

/** The view without what is hidden. */
function without(view: StoredView, hidden: readonly string[], shows: Shows): StoredView {
  if (hidden.length === 0 && shows.fabric) return view
  const gone = new Set(hidden)
  return {
    ...view,
    masses: view.masses.filter((m) => !gone.has(m.id)),
    parts: view.parts.filter((p) => !gone.has(p.id)),
  }
}

const contextItems = ({ masses, ground }: StoredView): Placed[] => [
  ...masses
    .filter((m) => m.context)
    .flatMap((m): Placed[] => {
      const geometry = stageGeometry.get(m.body)
      return geometry ? [{ owner: m.id, geometry, at: m.at, tint: null }] : []
    }),
  ...ground.neighbours.flatMap((n): Placed[] => {
    const geometry = stageGeometry.get(n.body)
    return geometry ? [{ owner: n.id, geometry, at: HERE, tint: null }] : []
  }),
]

function massItems(view: StoredView, keep: (id: string) => boolean): Placed[] {
  return view.masses
    .filter((m) => !m.context && keep(m.id))
    .flatMap((m): Placed[] => {
      const geometry = stageGeometry.get(m.body)
      return geometry ? [{ owner: m.id, geometry, at: m.at, tint: null }] : []
    })
}

function highlight(view: StoredView, ids: string[], palette: Palette): Batch {
  const wanted = new Set(ids)
  const parts = view.parts
    .filter((p) => wanted.has(p.id))
    .flatMap((p): Placed[] => {
      const geometry = stageGeometry.get(p.mesh)
      return geometry ? [{ owner: p.id, geometry, at: HERE, tint: null }] : []
    })
  return batchOf([...massItems(view, (id) => wanted.has(id)), ...parts], palette)
}

/** m from storey to storey, as most of them are */
function usualStorey(view: StoredView): number {
  const zs = view.levels.filter((l) => l.kind === 'storey').map((l) => l.height)
  const rises = zs
    .slice(1)
    .map((z, i) => z - (zs[i] ?? 0))
    .sort((a, b) => a - b)
  return rises[Math.floor(rises.length / 2)] ?? 10
}

const heightOf = (view: StoredView, level: string) => view.levels.find((l) => l.id === level)?.height ?? 0
