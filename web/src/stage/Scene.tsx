import { useThree } from '@react-three/fiber'
import { useEffect, useMemo, useRef } from 'react'
import type { Shows } from '../app/view-slice'
import { batchOf, fillsOf, HERE, outlinesOf, shadowOf, stackedOutlines } from './batches'
import { linesIn, linesUnder } from './placed'
import { useLit } from './lit-drawn'
import type { Marked, Shades } from './drawing/told'
import { instancesOf, shadowsOf } from './instances'
import { coloursOf, type Dress } from './colours'
import { stageGeometry, type StoredView } from './geometry-store'
import { Faces, Lines, Many } from './drawn'
import { GroundScene } from './GroundScene'
import { Pictures } from './Pictures'
import type { Materials } from './materials'
import type { StageShows } from './shows'
import type { Palette } from './theme'
import { heightOf, highlight, idsOf, madeOf, NONE, solids, spotsBatch, usualStorey, without } from './scene-items'
import { spotDrawn } from './spots'
import { Contours } from './Contours'

/**
 * `shows` and `hidden` say what is drawn, and how; `level` is that of the blade; `direction` where the 3D view looks from, for contours.
 * It knows neither page nor store: it is drawn in the drawing worker, and in the page where schemes stand beside one another.
 */
export interface SceneProps {
  view: StoredView
  at: StageShows
  materials: Materials
  palette: Palette
  shows: Shows
  hidden: readonly string[]
  level: string | null
  marked: Marked
  /** what things are made of, where that is to be seen */ dress: Dress | null
  pictures: Shades
  direction: () => readonly [number, number, number]
}

/** What is drawn: the results of the study, batched. Which objects a pane shows is told by their `pane` mark. */
export function Scene({
  view: whole,
  at,
  materials,
  palette,
  shows,
  hidden,
  level,
  marked,
  dress,
  pictures,
  direction,
}: SceneProps) {
  const invalidate = useThree((s) => s.invalidate)
  const { picked, hover, spots, hoverSpot } = marked
  const { fabric } = at
  const view = useMemo(() => without(whole, hidden, shows), [whole, hidden, shows])
  const colours = useMemo(() => (dress ? coloursOf(dress, whole.masses) : null), [dress, whole.masses])

  // While only levels or figures change, what stands stays as it is, and nothing is sent to the screen again.
  const standing = useSame(view, `${fabric ? standingKey(view) : massesKey(view)} ${neighboursKey(view)}`)
  const all = useMemo(
    () => solids(standing, fabric, palette, shows, colours),
    [standing, fabric, palette, shows, colours],
  )
  const parted = useMemo(() => instancesOf(all.solid, palette), [all, palette])
  const solid = useMemo(() => batchOf(parted.single, palette), [parted, palette])
  const edges = useMemo(() => (parted.many.length ? linesIn(all.solid) : solid), [parted, all, solid])
  const buried = useMemo(() => linesUnder(0, edges.edges), [edges])
  const clear = useMemo(() => batchOf(all.clear, palette), [all, palette])
  const around = useMemo(() => batchOf(all.around, palette), [all, palette])
  const outlined = useMemo(
    () => batchOf(fabric && shows.fabric && shows.masses !== 'see-through' ? madeOf(standing) : [], palette),
    [standing, fabric, palette, shows],
  )
  const chosen = useMemo(() => highlight(view, idsOf(view, picked), palette), [view, picked, palette])
  const under = useMemo(() => highlight(view, hover ? [hover] : [], palette), [view, hover, palette])
  const spotted = useMemo(() => spotsBatch(view, spots), [view, spots])
  const spotUnder = useMemo(() => (hoverSpot ? spotDrawn(view, hoverSpot).lines : NONE), [view, hoverSpot])
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
  const lit = useLit(view, marked.lit)
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
      fabric
        ? fillsOf(
            view.parts.filter((p) => p.level === level && p.plan.length).map((p) => ({ region: p.plan, z: z + 1.21 })),
          )
        : null,
    [fabric, view.parts, level, z],
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
    () => shadowOf(solid.faces.getAttribute('position').array as Float32Array, at.blade && level ? z : 1e6),
    [solid, at.blade, level, z],
  )
  const shadows = useMemo(() => shadowsOf(parted.many, at.blade && level ? z : 1e6), [parted, at.blade, level, z])

  useEffect(
    () => invalidate(),
    [invalidate, solid, outlined, chosen, under, spotted, spotUnder, offer, cap, materials, at, view, lit],
  )

  return (
    <>
      <Faces geometry={shadow} material={materials.shadow} order={0} pane="3d" />
      {shadows.map((s, i) => (
        <Many key={i} {...s} material={materials.shadow} order={0} pane="3d" />
      ))}
      <GroundScene view={view} at={at} materials={materials} palette={palette} shows={shows} behind={marked.behind} />
      <Pictures view={view} shown={shows.pictures} shades={pictures} />
      <Faces geometry={solid.faces} material={materials.faces} order={1} />
      {parted.many.map((many, i) => (
        <Many key={i} {...many} material={materials.faces} order={1} />
      ))}
      <Lines segments={edges.edges} material={materials.ink} order={2} />
      <Contours contours={edges.contours} material={materials.ink} direction={direction} />
      <Faces geometry={around.faces} material={materials.faces} order={1} />
      <Faces geometry={around.faces} material={materials.aroundCut} order={3} cutOnly pane="3d" />
      <Lines segments={around.edges} material={materials.around} order={2} />
      <Contours contours={around.contours} material={materials.around} direction={direction} />
      <Faces geometry={clear.faces} material={materials.seeThrough} order={8} />
      <Lines segments={clear.edges} material={materials.ink} order={2} />
      <Contours contours={clear.contours} material={materials.ink} direction={direction} />
      <Lines segments={fabric ? NONE : floorLines} material={materials.floors} order={2} pane="space" apart={storey} />
      <Lines segments={outlined.edges} material={materials.soft} order={2} />
      <Lines segments={edges.edges} material={materials.ghost} order={3} cutOnly />
      <Lines
        segments={fabric ? NONE : floorLines}
        material={materials.ghostFloors}
        order={3}
        pane="space"
        cutOnly
        apart={storey}
      />
      <Lines segments={buried} material={materials.buried} order={3} pane="3d" aboveGround />
      {offer && <Faces geometry={offer.faces} material={materials.offered} order={4} />}
      {offer && <Lines segments={offer.edges} material={materials.offeredLines} order={5} />}
      {cap && <Faces geometry={cap} material={materials.cap} order={4} cutOnly pane={fabric ? 'space' : undefined} />}
      {lows && <Faces geometry={lows} material={materials.low} order={4} cutOnly pane={fabric ? 'space' : undefined} />}
      <Lines segments={capLines} material={materials.cutLine} order={5} cutOnly pane="space" />
      {!fabric && <Lines segments={capLines} material={materials.planCutLine} order={5} cutOnly pane="plan" />}
      {untaken && <Faces geometry={untaken.faces} material={materials.untaken} order={4} cutOnly />}
      <Lines segments={untaken?.lines ?? NONE} material={materials.untakenLine} order={5} cutOnly />
      {lit?.on && <Faces geometry={lit.on} material={materials.litOn} order={6} />}
      {lit?.off && <Faces geometry={lit.off} material={materials.litOff} order={6} />}
      <Lines segments={lit?.lines ?? NONE} material={materials.litLine} order={7} />
      <Lines segments={planLines} material={materials.planLine} order={5} pane="plan" />
      {poche && <Faces geometry={poche} material={materials.poche} order={5} pane="plan" />}
      <Lines segments={under.edges} material={materials.hovered} order={6} pane="space" />
      <Lines segments={under.edges} material={materials.planHovered} order={6} pane="plan" />
      {spotted.faces && <Faces geometry={spotted.faces} material={materials.spot} order={4} />}
      <Lines segments={spotted.lines} material={materials.spotLine} order={8} />
      <Lines segments={spotUnder} material={materials.hovered} order={6} />
      <Lines segments={chosen.edges} material={materials.picked} order={7} pane="space" />
      <Lines segments={chosen.edges} material={materials.planPicked} order={7} pane="plan" />
    </>
  )
}

/** The value as it was when its key last changed. */
function useSame<T>(value: T, key: string): T {
  const kept = useRef({ value, key })
  if (kept.current.key !== key) kept.current = { value, key }
  return kept.current.value
}
const massesKey = (view: StoredView) =>
  view.masses.map(({ id, body, at, gives }) => `${id} ${gives ?? ''} ${body} ${at.x} ${at.y} ${at.z} ${at.turn}`).join()
const neighboursKey = (view: StoredView) => view.ground.neighbours.map((n) => n.body).join()
const standingKey = (view: StoredView) =>
  `${massesKey(view)} ${view.parts.map((p) => `${p.mesh} ${p.bond.status}`).join()}`
