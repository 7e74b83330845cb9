import { useThree } from '@react-three/fiber'
import { useEffect, useMemo } from 'react'
import { BufferGeometry, Float32BufferAttribute, type Material } from 'three'
import { LineSegments2 } from 'three/examples/jsm/lines/LineSegments2.js'
import type { LineMaterial } from 'three/examples/jsm/lines/LineMaterial.js'
import { useAppSelector } from '../app/store'
import type { StoredView } from '../app/view-slice'
import { batchOf, fillsOf, HERE, linesOf, outlinesOf, shadowOf, type Batch, type Placed } from './batches'
import { stageGeometry } from './geometry-store'
import { pickable } from './picking'
import type { Materials } from './materials'
import type { Palette } from './theme'

export interface SceneProps { view: StoredView; desk: string; materials: Materials; palette: Palette }

/** What is drawn: the results of the study, batched. Which objects a pane shows is told by their `pane` mark. */
export function Scene({ view, desk, materials, palette }: SceneProps) {
  const invalidate = useThree((s) => s.invalidate)
  const level = useAppSelector((s) => s.view.level)
  const picked = useAppSelector((s) => s.view.picked)
  const hover = useAppSelector((s) => s.view.hover)
  const fabric = desk === 'fabric'

  const solid = useMemo(() => batchOf(solids(view, fabric, palette), palette), [view, fabric, palette])
  const outlined = useMemo(() => batchOf(fabric ? massItems(view, (id) => view.parts.some((p) => p.mass === id && p.mesh)) : [], palette), [view, fabric, palette])
  const chosen = useMemo(() => highlight(view, picked.kind === 'nothing' || picked.kind === 'level' ? [] : picked.ids, palette), [view, picked, palette])
  const under = useMemo(() => highlight(view, hover ? [hover] : [], palette), [view, hover, palette])
  const offer = stageGeometry.get(view.proposal?.mesh ?? null)
  const floorLines = useMemo(() => outlinesOf(view.floors.flatMap((f) => { const z = heightOf(view, f.level); return f.plates.map((p) => ({ region: p.region, z })) })), [view])
  const floor = view.floors.find((f) => f.level === level)
  const z = level ? heightOf(view, level) : 0
  const cap = useMemo(() => (floor ? fillsOf(floor.plates.map((p) => ({ region: p.region, z: z + 0.004 }))) : null), [floor, z])
  const lows = useMemo(() => (floor && floor.lows.length ? fillsOf([{ region: floor.lows, z: z + 0.004 }]) : null), [floor, z])
  const capLines = useMemo(() => (floor ? outlinesOf([...floor.plates.map((p) => ({ region: p.region, z: z + 0.012 })), { region: floor.lows, z: z + 0.012 }]) : new Float32Array()), [floor, z])
  const poche = useMemo(() => fillsOf(view.parts.filter((p) => p.level === level && p.plan.length).map((p) => ({ region: p.plan, z: z + 1.21 }))), [view, level, z])
  const planLines = useMemo(() => (fabric && floor ? outlinesOf(floor.plates.filter((p) => !view.parts.some((q) => q.mass === p.mass && q.mesh)).map((p) => ({ region: p.region, z: z + 1.21 }))) : NONE), [fabric, floor, view, z])
  const shadow = useMemo(() => shadowOf(solid.faces.getAttribute('position').array as Float32Array, desk === 'slice' && level ? z : 1e6), [solid, desk, level, z])

  useEffect(() => { pickable.batch = solid }, [solid])
  useEffect(() => invalidate(), [invalidate, solid, outlined, chosen, under, offer, cap, materials, desk, view])

  return (
    <>
      <Faces geometry={shadow} material={materials.shadow} order={0} pane="3d" />
      <Faces geometry={solid.faces} material={materials.faces} order={1} />
      <Lines segments={solid.edges} material={materials.ink} order={2} />
      <Lines segments={fabric ? NONE : floorLines} material={materials.floors} order={2} pane="3d" />
      <Lines segments={outlined.edges} material={materials.soft} order={2} />
      <Lines segments={solid.edges} material={materials.ghost} order={3} cutOnly />
      <Lines segments={fabric ? NONE : floorLines} material={materials.ghostFloors} order={3} pane="3d" cutOnly />
      <Lines segments={solid.edges} material={materials.buried} order={3} pane="3d" aboveGround />
      {offer && <Faces geometry={offeredFaces(offer.positions)} material={materials.offered} order={4} />}
      {offer && <Lines segments={offer.edges} material={materials.offeredLines} order={5} />}
      {cap && <Faces geometry={cap} material={materials.cap} order={4} cutOnly pane={fabric ? '3d' : undefined} />}
      {lows && <Faces geometry={lows} material={materials.low} order={4} cutOnly pane={fabric ? '3d' : undefined} />}
      <Lines segments={capLines} material={materials.cutLine} order={5} cutOnly pane={fabric ? '3d' : undefined} />
      <Lines segments={planLines} material={materials.planLine} order={5} pane="plan" />
      {fabric && <Faces geometry={poche} material={materials.poche} order={5} pane="plan" />}
      <Lines segments={under.edges} material={materials.hovered} order={6} />
      <Lines segments={chosen.edges} material={materials.picked} order={7} />
    </>
  )
}

interface Marks { order: number; pane?: '3d' | 'plan' | undefined; cutOnly?: boolean; aboveGround?: boolean }
const marks = ({ pane, cutOnly, aboveGround }: Marks) => ({ pane: pane ?? null, cutOnly: cutOnly ?? false, aboveGround: aboveGround ?? false })

function Faces({ geometry, material, ...m }: { geometry: BufferGeometry; material: Material } & Marks) {
  useEffect(() => () => geometry.dispose(), [geometry])
  return <mesh geometry={geometry} material={material} renderOrder={m.order} userData={marks(m)} frustumCulled={false} />
}

function Lines({ segments, material, ...m }: { segments: Float32Array; material: LineMaterial } & Marks) {
  const object = useMemo(() => new LineSegments2(), [])
  const geometry = useMemo(() => linesOf(segments), [segments])
  useEffect(() => () => geometry.dispose(), [geometry])
  object.geometry = geometry
  object.material = material
  object.userData = marks(m)
  object.renderOrder = m.order
  object.frustumCulled = false
  object.visible = segments.length > 0
  if (material.dashed) object.computeLineDistances()
  return <primitive object={object} />
}

const NONE = new Float32Array()

/** At the Fabric desk parts stand for the masses they were made of; elsewhere the masses stand for themselves. */
function solids(view: StoredView, fabric: boolean, palette: Palette): Placed[] {
  if (!fabric) return massItems(view, () => true)
  const made = new Set(view.parts.filter((p) => p.mesh).map((p) => p.mass))
  const parts = view.parts.flatMap((p): Placed[] => {
    const geometry = stageGeometry.get(p.mesh)
    return geometry ? [{ owner: p.id, geometry, at: HERE, tint: p.bond.status === 'bonded' ? null : palette.warn }] : []
  })
  return [...parts, ...massItems(view, (id) => !made.has(id))]
}

function massItems(view: StoredView, keep: (id: string) => boolean): Placed[] {
  return view.masses.filter((m) => keep(m.id)).flatMap((m): Placed[] => {
    const geometry = stageGeometry.get(m.body)
    return geometry ? [{ owner: m.id, geometry, at: m.at, tint: null }] : []
  })
}

function highlight(view: StoredView, ids: string[], palette: Palette): Batch {
  const wanted = new Set(ids)
  const parts = view.parts.filter((p) => wanted.has(p.id)).flatMap((p): Placed[] => { const geometry = stageGeometry.get(p.mesh); return geometry ? [{ owner: p.id, geometry, at: HERE, tint: null }] : [] })
  return batchOf([...massItems(view, (id) => wanted.has(id)), ...parts], palette)
}

const heightOf = (view: StoredView, level: string) => view.levels.find((l) => l.id === level)?.height ?? 0

const offeredCache = new WeakMap<Float32Array, BufferGeometry>()
function offeredFaces(positions: Float32Array): BufferGeometry {
  let geometry = offeredCache.get(positions)
  if (!geometry) offeredCache.set(positions, geometry = trianglesOf(positions))
  return geometry
}
function trianglesOf(positions: Float32Array): BufferGeometry {
  const geometry = new BufferGeometry()
  geometry.setAttribute('position', new Float32BufferAttribute(positions, 3))
  return geometry
}
