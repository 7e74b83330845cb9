import type { Frame, Vec2, Vec3 } from '@geotome/core/solid'

/**
 * A parallel view: looks at `target` (m) from an azimuth and an elevation (degrees; 90 is straight down), `scale` pixels to a
 * metre. Plain arithmetic, so that the picture and everything drawn over it agree to the pixel.
 */
export interface View {
  target: Vec3
  azimuth: number
  elevation: number
  scale: number
}

export interface Axes {
  right: Vec3
  up: Vec3
  toward: Vec3
}

/** Where a view's right and up run, and toward whom; views are not changed in place. */
export function axesOf(view: View): Axes {
  let axes = axesByView.get(view)
  if (!axes) axesByView.set(view, (axes = axesAt(view)))
  return axes
}
const axesByView = new WeakMap<View, Axes>()

function axesAt(view: View): Axes {
  const [a, e] = [(view.azimuth * Math.PI) / 180, (view.elevation * Math.PI) / 180]
  const [ca, sa, ce, se] = view.elevation === 90 ? [0, -1, 0, 1] : [Math.cos(a), Math.sin(a), Math.cos(e), Math.sin(e)]
  return { right: [-sa, ca, 0], up: [-se * ca, -se * sa, ce], toward: [ce * ca, ce * sa, se] }
}

/** Where a point (m) is in a pane of w x h pixels. */
export function toPane(view: View, [w, h]: Vec2, p: readonly number[]): Vec2 {
  const { right, up } = axesOf(view)
  const d: Vec3 = [(p[0] ?? 0) - view.target[0], (p[1] ?? 0) - view.target[1], (p[2] ?? 0) - view.target[2]]
  return [w / 2 + dot(right, d) * view.scale, h / 2 - dot(up, d) * view.scale]
}

/** The point at height z (m) under a pixel of the pane. */
export function atHeight(view: View, [w, h]: Vec2, [px, py]: Vec2, z: number): Vec2 {
  const { right, up, toward } = axesOf(view)
  const [a, b] = [(px - w / 2) / view.scale, (h / 2 - py) / view.scale]
  const t = (z - view.target[2] - b * up[2]) / toward[2]
  return [
    view.target[0] + a * right[0] + b * up[0] + t * toward[0],
    view.target[1] + a * right[1] + b * up[1] + t * toward[1],
  ]
}

/** The point under a pixel in the plane through the view's target that faces the viewer. */
export function facing(view: View, [w, h]: Vec2, [px, py]: Vec2): Vec3 {
  const { right, up } = axesOf(view)
  const [a, b] = [(px - w / 2) / view.scale, (h / 2 - py) / view.scale]
  return [
    view.target[0] + a * right[0] + b * up[0],
    view.target[1] + a * right[1] + b * up[1],
    view.target[2] + a * right[2] + b * up[2],
  ]
}

/** Whether a view looks at a plane, not along it. */
export const sees = (view: View, { w }: Frame): boolean => Math.abs(dot(axesOf(view).toward, w)) > 0.05

/** The point of a plane under a pixel, by the two axes of its frame (from the view's origin, m). */
export function inPlane(view: View, size: Vec2, at: Vec2, { origin, u, v, w }: Frame): Vec2 {
  const { toward } = axesOf(view)
  const from = facing(view, size, at)
  const less: Vec3 = [from[0] - origin[0], from[1] - origin[1], from[2] - origin[2]]
  const t = -dot(w, less) / (dot(w, toward) || 1)
  const d: Vec3 = [less[0] + toward[0] * t, less[1] + toward[1] * t, less[2] + toward[2] * t]
  return [dot(u, d), dot(v, d)]
}

/** px in the window that one metre in a direction is; [0, 0] towards the viewer */
export function pixelsOf(view: View, way: Vec3): Vec2 {
  const { right, up } = axesOf(view)
  return [dot(right, way) * view.scale, -dot(up, way) * view.scale]
}

/** m along a direction that a way in the window leads; where it looks at the viewer, upwards is along it. */
export function metresAlong(view: View, way: Vec3, [x, y]: Vec2): number {
  const [px, py] = pixelsOf(view, way)
  const square = px * px + py * py
  return square < (0.15 * view.scale) ** 2 ? -y / view.scale : (x * px + y * py) / square
}

/** The view moved so that the model goes along with the pointer. */
export function panned(view: View, dx: number, dy: number): View {
  const { right, up } = axesOf(view)
  const [a, b] = [-dx / view.scale, dy / view.scale]
  return {
    ...view,
    target: [
      view.target[0] + a * right[0] + b * up[0],
      view.target[1] + a * right[1] + b * up[1],
      view.target[2] + a * right[2] + b * up[2],
    ],
  }
}

export function orbited(view: View, dx: number, dy: number): View {
  return { ...view, azimuth: view.azimuth - dx * 0.4, elevation: Math.min(88, Math.max(8, view.elevation + dy * 0.3)) }
}

/** Zoomed by a factor about a pixel, which stays where it is. */
export function zoomed(view: View, size: Vec2, at: Vec2, factor: number): View {
  const scale = Math.min(400, Math.max(0.2, view.scale * factor))
  const k = view.scale / scale
  const next = panned({ ...view, scale: view.scale }, (size[0] / 2 - at[0]) * (1 - k), (size[1] / 2 - at[1]) * (1 - k))
  return { ...next, scale }
}

/** The least and the greatest of some numbers; a thousand masses have more of them than can be handed to a function. */
export const spanOf = (values: readonly number[]): [least: number, most: number] =>
  values.reduce<[number, number]>(([a, b], v) => [Math.min(a, v), Math.max(b, v)], [Infinity, -Infinity])

/** The view that shows all points, with some air around. */
export function fitted(view: View, size: Vec2, points: Vec3[], air = 0.86): View {
  if (points.length === 0) return { ...view, target: [0, 0, 0], scale: 14 }
  const { right, up } = axesOf(view)
  const xs = points.map((p) => dot(right, p))
  const ys = points.map((p) => dot(up, p))
  const [[x0, x1], [y0, y1]] = [spanOf(xs), spanOf(ys)]
  const scale = Math.min(60, air * Math.min(size[0] / Math.max(x1 - x0, 4), (size[1] - 120) / Math.max(y1 - y0, 4)))
  const [a, b] = [(x0 + x1) / 2, (y0 + y1) / 2 - 24 / scale]
  return { ...view, scale, target: [a * right[0] + b * up[0], a * right[1] + b * up[1], a * right[2] + b * up[2]] }
}

/** Where in a pane there is room to look: px from its middle upwards. */
export interface Room {
  top: number
  bottom: number
}

/** The view in which what was seen of some points in one room is seen in another, smaller one, in the middle of it and no smaller than it must. */
export function inSight(view: View, points: readonly Vec3[], from: Room, to: Room): View {
  if (points.length === 0) return view
  const { up } = axesOf(view)
  const [low, high] = spanOf(points.map((p) => (dot(up, p) - dot(up, view.target)) * view.scale))
  const [bottom, top] = [Math.max(low, from.bottom), Math.min(high, from.top)]
  if (top < bottom) return view
  const k = Math.min(1, ((to.top - to.bottom) * 0.94) / (top - bottom))
  const shift = ((top + bottom) / 2) * k - (to.top + to.bottom) / 2
  return panned({ ...view, scale: view.scale * k }, 0, shift)
}

const dot = (a: readonly number[], b: readonly number[]) =>
  (a[0] ?? 0) * (b[0] ?? 0) + (a[1] ?? 0) * (b[1] ?? 0) + (a[2] ?? 0) * (b[2] ?? 0)
