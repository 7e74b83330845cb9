import { areaOf, piecesOf, TOLERANCE, type Region, type Vec2 } from '@geotome/core/solid'
import { Memo } from '@geotome/core/project'
import { notCounted, ownRegions, type Island } from '@geotome/core/slice'
import type { Floor, Study } from '@geotome/core/study'
import type { FloorShape, FloorView, PlateView } from './protocol'

/** What is drawn of a thing, kept while the thing stays the same object from study to study. */
const memo = new Memo()

/** A floor as the page has it; its shape is sent once. */
export function floorView(
  floor: Floor,
  shape: FloorShape,
  untaken: Region,
  sent: Set<string>,
  fresh: Map<string, FloorShape>,
): FloorView {
  if (!sent.has(shape.key)) {
    sent.add(shape.key)
    fresh.set(shape.key, shape)
  }
  return {
    level: floor.level.id,
    area: floor.area,
    low: floor.low,
    net: floor.net,
    perimeter: floor.perimeter,
    uses: floor.uses,
    shape: shape.key,
    untaken,
  }
}

/** The cuts of masses that stand at a floor's height without taking it. */
export function untakenAt(study: Study, floor: Floor, origin: Vec2): Region {
  const { height } = floor.level
  const standing = study.forms.filter((f) => f.base <= height + TOLERANCE.height && f.top >= height - TOLERANCE.height)
  if (standing.length === 0) return []
  const takers = new Set(floor.plates.map((p) => p.mass))
  return standing
    .filter((f) => !takers.has(f.id))
    .flatMap((form) => {
      const plate = study.context.plateAt(form, height)
      return plate ? memo.keep(plate, 'shifted', [...origin], () => shifted(plate.region, origin)) : []
    })
}

export function shapeOf(floor: Floor, [ox, oy]: Vec2): FloorShape {
  return memo.keep(floor.islands, 'shape', [ox, oy], () => {
    const shown = floor.islands.map((island) => memo.keep(island, 'view', [ox, oy], () => islandView(island, [ox, oy])))
    return { key: `floor:${++shapesMade}`, plates: shown.flatMap((i) => i.plates), lows: shown.flatMap((i) => i.lows) }
  })
}
let shapesMade = 0

/** The pieces of floor of masses that meet, each with its use; where masses overlap, the first in order has the floor. */
function islandView(island: Island, origin: Vec2): { plates: PlateView[]; lows: Region } {
  const own = ownRegions(island)
  const plates = island.shares.flatMap((share, i) => {
    return piecesOf(own[i] ?? []).map((piece) => {
      const region = shifted(piece, origin)
      return { mass: share.plate.mass, use: share.use, region, area: areaOf(piece) }
    })
  })
  return { plates, lows: island.low > 0.01 ? shifted(notCounted(island), origin) : [] }
}

export const shifted = (region: Region, [ox, oy]: Vec2): Region =>
  region.map((loop) => loop.map(([x, y]): Vec2 => [x - ox, y - oy]))
