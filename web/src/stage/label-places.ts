import polylabel from 'polylabel'
import type { PlateView } from '../worker/protocol'
import { inside, type Region, type Vec2 } from '@geotome/core/solid'

export interface Wanted {
  mass: string
  /** what stands on it: made for those alone that may have one */ say: () => string
  /** pointed at or picked: it has its label whatever else has one */ asked?: boolean
  /** px, what the label is about */ anchor: Vec2
}
export interface PlacedLabel extends Wanted {
  text: string
  width: number
  at: Vec2
  moved: boolean
}

/** px that a label's text takes */
const widthOf = (text: string) => text.length * 6.6 + 18

const HEIGHT = 22
/** px at the foot of a pane that the verbs cover */
const FOOT = 104
/**
 * as many labels as can be told apart; in a crowd only the largest pieces have one, the others when they are pointed at, picked or zoomed
 * to
 */
const [MOST, MOST_IN_A_CROWD] = [28, 8]
const isCrowd = (wanted: number) => wanted > 16
/** a crowd of labels stays close to what it is about */
const rings = (wanted: number) => (isCrowd(wanted) ? 1 : 4)

/** Places labels, the first ones first, each where its anchor is or as near as there is room; what is out of sight has none. */
export function placeLabels(wanted: Wanted[], [w, h]: Vec2): PlacedLabel[] {
  const placed: PlacedLabel[] = []
  const inSight = wanted.filter(({ anchor: [x, y] }) => x >= 0 && x <= w && y >= 0 && y <= h)
  const most = isCrowd(inSight.length) ? MOST_IN_A_CROWD : MOST
  for (const label of inSight) {
    if (placed.length >= most && !label.asked) continue
    const [x, y] = label.anchor
    const text = label.say()
    const width = widthOf(text)
    const clear = ([cx, cy]: Vec2) =>
      cx >= width / 2 + 4 &&
      cx <= w - width / 2 - 4 &&
      cy >= HEIGHT &&
      cy <= h - FOOT &&
      placed.every((p) => Math.abs(p.at[0] - cx) > (p.width + width) / 2 + 4 || Math.abs(p.at[1] - cy) > HEIGHT + 2)
    const at = spots([x, y], width, rings(inSight.length)).find(clear)
    if (at) placed.push({ ...label, text, width, at, moved: Math.hypot(at[0] - x, at[1] - y) > 12 })
  }
  return placed
}

/** The anchor, then rings of places around it. */
function spots([x, y]: Vec2, width: number, most: number): Vec2[] {
  const places: Vec2[] = [[x, y]]
  for (let ring = 1; ring <= most; ring++) {
    const [dx, dy] = [width * 0.62 * ring, (HEIGHT + 6) * ring]
    places.push(
      [x, y - dy],
      [x, y + dy],
      [x + dx, y],
      [x - dx, y],
      [x + dx, y - dy],
      [x - dx, y - dy],
      [x + dx, y + dy],
      [x - dx, y + dy],
    )
  }
  return places
}

/** Where a label stands best in a piece of floor; worked out only for what is looked at. */
export function middleOf(plate: PlateView): Vec2 {
  let middle = middles.get(plate)
  if (!middle) {
    middles.set(plate, (middle = middleOfFour(plate.region) ?? deepIn(plate.region)))
  }
  return middle
}
const middles = new WeakMap<PlateView, Vec2>()

/** The middle of a piece of four corners: the place deep in it that is least at one end. */
function middleOfFour([loop, ...holes]: Region): Vec2 | null {
  if (!loop || loop.length !== 4 || holes.length) return null
  const middle = loop.reduce((sum, p): Vec2 => [sum[0] + p[0] / 4, sum[1] + p[1] / 4], [0, 0] as Vec2)
  return inside(loop, middle) ? middle : null
}

function deepIn(region: Region): Vec2 {
  const [x, y] = polylabel(region, 0.25)
  return [x ?? 0, y ?? 0]
}
