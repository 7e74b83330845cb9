import { type Vec2, gapOf } from '../solid'
import { refuse } from '../values'
import { sidesWithArcs } from './arcs'
import {
  circleThrough,
  halfInk,
  mainDirection,
  plainSides,
  spread,
  squared,
  type FitArc,
  type FitCircle,
  type FitLine,
} from './fit'
import { cornersBefore, loopOf, loopOfCircle, nested, turnedRound, type FoundLoop, type FoundShape } from './loops'

export type { FoundShape } from './loops'

/** Red, green, blue and opacity, a byte each, row by row from the top. */
export interface Raster {
  width: number
  height: number
  data: Uint8ClampedArray | Uint8Array
}

export interface TraceOptions {
  /** degrees: sides that lie so close to the main directions are made true to them */
  within: number
  /** pixels: shapes with less area are specks */
  smallest: number
}

/** Steps of the work as a part of one, for those who wait. */
export type Progress = (done: number, what: string) => void

export const MOST_PIXELS = 60e6

/**
 * Closed shapes in an ink sketch. Ink is what is darker than its surroundings, so that shade and yellowed paper do not matter; each white
 * patch that ink encloses is a shape, and runs along the middle of the ink around it. Shapes directly in another are its holes.
 */
export async function traceSketch(
  image: Raster,
  options: TraceOptions,
  progress: Progress = () => {},
): Promise<FoundShape[]> {
  if (image.width * image.height > MOST_PIXELS)
    refuse(
      'size',
      `The picture has ${Math.round((image.width * image.height) / 1e6)} million pixels; up to ${MOST_PIXELS / 1e6} million are traced.`,
      'Crop it, or scan it at 300 dots to an inch.',
    )
  progress(0.05, 'Loading the tracer')
  // The package gives a name of its own to the whole worker, which strict modules do not let it do by itself.
  ;(globalThis as { Module?: object }).Module ??= {}
  const { openCv } = await import('./opencv')
  const { cv } = await openCv()
  progress(0.25, 'Telling ink from paper')
  const own: { delete(): void }[] = []
  const keep = <T extends { delete(): void }>(o: T): T => {
    own.push(o)
    return o
  }
  try {
    const source = keep(cv.matFromArray(image.height, image.width, cv.CV_8UC4, image.data as unknown as number[]))
    const grey = keep(new cv.Mat())
    cv.cvtColor(source, grey, cv.COLOR_RGBA2GRAY)
    const ink = keep(new cv.Mat())
    cv.adaptiveThreshold(
      grey,
      ink,
      255,
      cv.ADAPTIVE_THRESH_MEAN_C,
      cv.THRESH_BINARY_INV,
      oddNear(Math.max(31, Math.min(image.width, image.height) / 30)),
      18,
    )
    cv.morphologyEx(ink, ink, cv.MORPH_CLOSE, keep(cv.Mat.ones(5, 5, cv.CV_8U)))
    progress(0.5, 'Following the lines')
    const found = keep(new cv.MatVector())
    const tree = keep(new cv.Mat())
    cv.findContours(ink, found, tree, cv.RETR_CCOMP, cv.CHAIN_APPROX_NONE)
    progress(0.75, 'Fitting straight sides')
    const runs: Run[] = []
    const count = Number(found.size())
    for (let i = 0; i < count; i++) {
      const contour = found.get(i)
      const link = tree.data32S
      const parent = link[i * 4 + 3] ?? -1
      // The ink around a hole is counted by its outer contour too, whatever its size.
      const area = contour.rows < 12 ? 0 : cv.contourArea(contour, false)
      runs.push({
        pixels: area > options.smallest ? pixelsOf(contour.data32S) : [],
        parent,
        area,
        length: area > options.smallest ? cv.arcLength(contour, true) : 0,
        corners: [],
      })
      if (area > options.smallest) {
        const near = new cv.Mat()
        cv.approxPolyDP(contour, near, Math.max(4, 0.006 * cv.arcLength(contour, true)), true)
        const last = runs[i] as Run
        last.corners = indicesOf(pixelsOf(near.data32S), last.pixels)
        near.delete()
      }
      contour.delete()
    }
    const shapes = shapesOf(runs, options)
    progress(1, 'Done')
    return shapes
  } finally {
    for (const o of own) o.delete()
  }
}

/** A contour: its pixels, those of them that are corners, and the contour of the ink that it is a hole of. */
interface Run {
  pixels: Vec2[]
  parent: number
  area: number
  length: number
  corners: number[]
}

function shapesOf(runs: Run[], options: TraceOptions): FoundShape[] {
  const holesOf = new Map<number, Run[]>()
  for (const run of runs)
    if (run.parent >= 0 && run.area > options.smallest) {
      const list = holesOf.get(run.parent)
      if (list) list.push(run)
      else holesOf.set(run.parent, [run])
    }
  const sided: { sides: FitLine[]; by: number[] }[] = []
  const circles: FitCircle[] = []
  runs.forEach((outer, i) => {
    if (outer.parent >= 0 || outer.area <= options.smallest || outer.corners.length < 3) return
    const holes = (holesOf.get(i) ?? []).filter((h) => h.corners.length >= 3)
    // All ink is a stroke of so many pixels' width along the middle of its two sides.
    const inkArea = outer.area - holes.reduce((sum, h) => sum + h.area, 0)
    const width = (2 * inkArea) / (outer.length + holes.reduce((sum, h) => sum + h.length, 0))
    const sidesFor = (run: Run) => plainSides(sidesWithArcs(run.pixels, run.corners), 3 * width + 8, Math.max(3, width))
    const outerSides = sidesFor(outer)
    if (holes.length === 0) {
      if (width > 25) sided.push({ sides: outerSides, by: outerSides.map(() => 0) })
      return
    }
    const holeSides = holes.map(sidesFor)
    const outerCircle = holes.length === 1 ? circleThrough(outer.pixels) : null
    for (const [k, hole] of holes.entries()) {
      const circle = circleThrough(hole.pixels)
      if (circle) {
        // The middle of the ink: halfway to the outer circle, or half of the stroke.
        circles.push({ at: circle.at, r: outerCircle ? (circle.r + outerCircle.r) / 2 : circle.r + width / 2 })
        continue
      }
      const sides = holeSides[k] ?? []
      // Where ink runs round one shape only, the mean of the line inside and outside is its middle, whatever its width here or there.
      const both = holes.length === 1 && sides.length === outerSides.length ? meanOf(sides, outerSides) : null
      const others = [...outerSides, ...holeSides.flatMap((s, m) => (m === k ? [] : s))]
      sided.push(both ? { sides: both, by: both.map(() => 0) } : { sides, by: halfInk(sides, others, width / 2) })
    }
  })
  // One main direction for the whole sheet: what was drawn square to each other stays so.
  const main = mainDirection(sided.flatMap((s) => s.sides))
  const loops = sided
    .map(({ sides, by }) => {
      const true_ = squared(sides, options.within, main)
      if (by.every((b) => b === 0)) return loopOf(true_)
      return loopOf(spread(true_, cornersBefore(true_), by, loopOf(true_).area < 0 ? -1 : 1))
    })
    .filter((loop) => Math.abs(loop.area) > options.smallest)
    .map((loop): FoundLoop => (loop.area < 0 ? turnedRound(loop) : loop))
  return nested([...loops, ...circles.map(loopOfCircle)])
}

/** The middle of each two sides that run along each other; null where they do not match one by one. */
function meanOf(inner: FitLine[], outer: FitLine[]): FitLine[] | null {
  const left = [...outer]
  const pairs = inner.map((side) => {
    if (side.arc) return middleArc(side, side.arc, left)
    const fits = left.filter((o) => !o.arc && Math.abs(o.way[0] * side.way[1] - o.way[1] * side.way[0]) < 0.1)
    const nearest = fits.sort((a, b) => gap(a, side) - gap(b, side))[0]
    if (!nearest) return null
    left.splice(left.indexOf(nearest), 1)
    const sign = Math.sign(nearest.way[0] * side.way[0] + nearest.way[1] * side.way[1])
    const way: Vec2 = [side.way[0] + sign * nearest.way[0], side.way[1] + sign * nearest.way[1]]
    const long = Math.hypot(...way)
    return {
      at: [(side.at[0] + nearest.at[0]) / 2, (side.at[1] + nearest.at[1]) / 2] as Vec2,
      way: [way[0] / long, way[1] / long] as Vec2,
      weight: side.weight,
    }
  })
  return pairs.every((p) => p !== null) ? pairs : null
}

/** The arc between one and the nearest to it about its middle, which is taken off the list; null where there is none. */
function middleArc(side: FitLine, arc: FitArc, left: FitLine[]): FitLine | null {
  const [nearest] = left.filter((o) => o.arc).sort((a, b) => away(a, arc) - away(b, arc))
  const other = nearest?.arc
  if (!nearest || !other || gapOf(other.at, arc.at) > 0.1 * arc.r + 4) return null
  left.splice(left.indexOf(nearest), 1)
  const at: Vec2 = [(arc.at[0] + other.at[0]) / 2, (arc.at[1] + other.at[1]) / 2]
  return { ...side, arc: { ...arc, at, r: (arc.r + other.r) / 2 } }
}
const away = ({ arc }: FitLine, from: FitArc) => (arc ? gapOf(arc.at, from.at) + Math.abs(arc.r - from.r) : Infinity)
const gap = (a: FitLine, b: FitLine) => gapOf(a.at, b.at)

const pixelsOf = (flat: Int32Array): Vec2[] =>
  Array.from({ length: flat.length / 2 }, (_, i): Vec2 => [(flat[i * 2] ?? 0) + 0.5, (flat[i * 2 + 1] ?? 0) + 0.5])
const oddNear = (n: number) => Math.round(n / 2) * 2 + 1

/** Where in a run of pixels each of some of its pixels comes, in the run's order. */
function indicesOf(some: Vec2[], pixels: Vec2[]): number[] {
  const at = new Map(pixels.map((p, i) => [p.join(), i]))
  return some.flatMap((p) => at.get(p.join()) ?? []).sort((a, b) => a - b)
}
