import { areaOf, piecesOf, TOLERANCE, type Region, type Vec2 } from '@geotome/core/solid'
import { Memo } from '@geotome/core/project'
import { notCounted, ownRegions, type Island } from '@geotome/core/slice'
import type { Floor, Study } from '@geotome/core/study'
import { dropUnnamed } from './named'
import type { FloorPiece, FloorShape, FloorView, PlateView } from './protocol'

/** What is drawn of a thing, kept while the thing stays the same object from study to study. */
const memo = new Memo()

/** A floor as the page has it; of its shape only the key, which is sent by itself. */
export const floorView = (floor: Floor, shape: FloorShape, untaken: Region): FloorView => ({
  level: floor.level.id,
  oneWith: floor.oneWith?.id ?? null,
  area: floor.area,
  low: floor.low,
  net: floor.net,
  perimeter: floor.perimeter,
  uses: floor.uses,
  shape: shape.key,
  untaken,
})

/** The cuts of masses that stand at a floor's height without taking it. */
export function untakenAt(study: Study, floor: Floor, origin: Vec2): Region {
  if (floor.oneWith) return []
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

/** The shape of a floor with all its pieces. */
export function shapeOf(floor: Floor, [ox, oy]: Vec2): { shape: FloorShape; pieces: FloorPiece[] } {
  return memo.keep(floor.islands, 'shape', [ox, oy], () => {
    const pieces = floor.islands.map((island) =>
      memo.keep(island, 'view', [ox, oy], () => ({ key: ++piecesMade, ...islandView(island, [ox, oy]) })),
    )
    return { shape: { key: `floor:${++shapesMade}`, pieces: pieces.map((p) => p.key) }, pieces }
  })
}
let shapesMade = 0
let piecesMade = 0

/** What the page has of shapes and their pieces, by key. */
export class SentShapes {
  private readonly shapes = new Map<string, number[]>()
  private readonly pieces = new Set<number>()
  /** What is not there yet of a shape is added to what is sent. */
  send(wanted: ReturnType<typeof shapeOf>, fresh: { shapes: FloorShape[]; pieces: FloorPiece[] }): FloorShape {
    const { shape, pieces } = wanted
    if (this.shapes.has(shape.key)) return shape
    this.shapes.set(shape.key, shape.pieces)
    fresh.shapes.push(shape)
    for (const piece of pieces)
      if (!this.pieces.has(piece.key)) {
        this.pieces.add(piece.key)
        fresh.pieces.push(piece)
      }
    return shape
  }
  /** Only those that are named are kept, with their pieces: the page does the same. */
  keepOnly(named: ReadonlySet<string>): void {
    dropUnnamed(named, this.shapes, this.pieces)
  }
  clear(): void {
    this.shapes.clear()
    this.pieces.clear()
  }
}

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
