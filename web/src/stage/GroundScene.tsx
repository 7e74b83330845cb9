import { useMemo } from 'react'
import { BufferAttribute, BufferGeometry } from 'three'
import { triangulate, type Vec2, type Vec3 } from '@geotome/core/solid'
import { uprightFrame } from '@geotome/core/slice'
import type { Shows } from '../app/view-slice'
import { batchOf, HERE, landOf, outlinesOf } from './batches'
import { type Placed } from './placed'
import { Faces, Lines, marks } from './drawn'
import { stageGeometry, type StoredView } from './geometry-store'
import type { Materials } from './materials'
import type { StageShows } from './shows'
import type { Palette } from './theme'

const NONE = new Float32Array()

/** Site, envelope, what lies beyond it, terrain; the cut of an upright plane; the plan of a level behind. */
export function GroundScene({
  view,
  at,
  materials,
  palette,
  shows,
  behind,
}: {
  view: StoredView
  at: StageShows
  materials: Materials
  palette: Palette
  shows: Shows
  /** the level whose plan lies under the one that is worked on */ behind: string | null
}) {
  const { ground, section } = view
  const terrain = stageGeometry.get(shows.terrain ? (ground.terrain?.mesh ?? null) : null)
  const land = useMemo(() => (terrain ? landOf(terrain, palette) : null), [terrain, palette])
  const site = stageGeometry.get(ground.site?.line ?? null)?.edges ?? NONE
  // Where floors are read or parts are made, the envelope would stand in the way: what is over is still painted.
  const drawn = shows.envelope && at.envelope
  const region = drawn ? ground.envelope?.region : undefined
  const setback = useMemo(
    () => (region && ground.site ? outlinesOf([{ region, z: 0.03 }]) : NONE),
    [region, ground.site],
  )
  const envelope = stageGeometry.get(drawn ? (ground.envelope?.mesh ?? null) : null)
  const overKeys = shows.envelope
    ? Object.values(ground.fits)
        .flatMap((f) => f.mesh ?? [])
        .join('|')
    : ''
  const over = useMemo(() => {
    const items = overKeys.split('|').flatMap((key): Placed[] => {
      const geometry = stageGeometry.get(key || null)
      return geometry ? [{ owner: 'over', geometry, at: HERE, tint: null }] : []
    })
    return items.length ? batchOf(items, palette) : null
  }, [overKeys, palette])
  const cut = useMemo(() => (section ? uprightFills(section) : null), [section])
  const floor = behind ? view.floors.find((f) => f.level === behind) : undefined
  const other = useMemo(
    () => (floor ? outlinesOf(floor.plates.map((p) => ({ region: p.region, z: 0 }))) : NONE),
    [floor],
  )
  return (
    <>
      {land && <Faces geometry={land.faces} material={materials.ground} order={0} pane="space" />}
      {land && (
        <lineSegments
          geometry={land.contours}
          material={materials.contour}
          renderOrder={1}
          frustumCulled={false}
          userData={marks({ order: 1 })}
        />
      )}
      <Lines segments={site} material={materials.siteLineInSpace} order={2} pane="space" />
      <Lines segments={site} material={materials.siteLine} order={6} pane="plan" />
      <Lines segments={setback} material={materials.setback} order={6} pane="plan" />
      <Lines segments={envelope?.edges ?? NONE} material={materials.envelope} order={7} pane="space" />
      {over && <Faces geometry={over.faces} material={materials.over} order={6} />}
      <Lines segments={over?.edges ?? NONE} material={materials.overLine} order={7} />
      <Lines segments={over?.edges ?? NONE} material={materials.overGhost} order={7} cutOnly />
      {cut && <Faces geometry={cut.faces} material={materials.cap} order={8} pane="section" />}
      <Lines segments={cut?.lines ?? NONE} material={materials.sectionLine} order={9} pane="section" />
      <Lines segments={other} material={materials.behind} order={5} pane="plan" />
    </>
  )
}

/** The cut of an upright plane as faces and lines, where it stands in the world. */
function uprightFills({ upright, regions }: NonNullable<StoredView['section']>): {
  faces: BufferGeometry
  lines: Float32Array
} {
  const { right, toward } = uprightFrame(upright.azimuth)
  const at = ([u, z]: Vec2, by: number): Vec3 => [
    right[0] * u + toward[0] * (upright.toward + by),
    right[1] * u + toward[1] * (upright.toward + by),
    z,
  ]
  const faces = new BufferGeometry()
  const positions = regions.flatMap(({ region }) => {
    const points = region.flat()
    return triangulate(region).flatMap((v) => {
      const p = points[v]
      return p ? at(p, 0.01) : []
    })
  })
  faces.setAttribute('position', new BufferAttribute(Float32Array.from(positions), 3))
  return {
    faces,
    lines: Float32Array.from(
      regions.flatMap(({ region }) =>
        region.flatMap((loop) =>
          loop.flatMap((p, i) => [...at(p, 0.02), ...at(loop[(i + 1) % loop.length] ?? p, 0.02)]),
        ),
      ),
    ),
  }
}
