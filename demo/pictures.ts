import { Sheet } from './raster'

/** px from the sheet's corner of a point (m) of a drawing that is turned by `skew` degrees about `at` */
const placed =
  (at: readonly [number, number], perMetre: number, skew: number) =>
  ([x, y]: readonly number[]): [number, number] => {
    const a = (skew * Math.PI) / 180
    const [u, v] = [(x ?? 0) * perMetre, -(y ?? 0) * perMetre]
    return [at[0] + u * Math.cos(a) - v * Math.sin(a), at[1] + u * Math.sin(a) + v * Math.cos(a)]
  }

/** The ink sketch of Kiln Quay's plan: the bar's two arms, a hall, a court in the corner; scanned askew, with a scale bar of 20 m. */
export function inkSketch(): { sheet: Sheet; bar: [[number, number], [number, number]]; pin: [number, number] } {
  const at = placed([170, 690], 12, -1.5)
  const sheet = new Sheet(1200, 900)
  sheet.loop(
    [
      [0, 30],
      [57.6, 30],
      [57.6, 0],
      [72, 0],
      [72, 44.4],
      [0, 44.4],
    ].map(at),
    5,
  )
  sheet.loop(
    [
      [60.6, 33],
      [69, 33],
      [69, 41.4],
      [60.6, 41.4],
    ].map(at),
    4,
  )
  sheet.loop(
    [
      [14.4, 3.6],
      [43.2, 3.6],
      [43.2, 22.8],
      [14.4, 22.8],
    ].map(at),
    5,
  )
  const bar: [[number, number], [number, number]] = [at([0, -8]), at([20, -8])]
  sheet.line(bar[0], bar[1], 3)
  for (const x of [0, 5, 10, 20]) sheet.line(at([x, -8.5]), at([x, -7.5]), 2)
  // The water: loose strokes along the quay.
  for (let i = 0; i < 9; i++) sheet.line(at([24 + i * 5.2, -9 - (i % 3)]), at([27 + i * 5.2, -9.3 - (i % 3)]), 2, 110)
  return { sheet: sheet.specks(500).shade(16, 4), bar, pin: at([0, 0]) }
}

/** A section picture of the bar: ground, floors with marks at their heights, roof; drawn plumb, with a plumb scale of 10 m. */
export function sectionPicture(heights: readonly number[]): {
  sheet: Sheet
  bar: [[number, number], [number, number]]
  zero: [number, number]
  marks: [number, number][]
} {
  const at = placed([260, 760], 26, 0)
  const sheet = new Sheet(900, 860)
  const top = heights.at(-1) ?? 0
  sheet.line(at([-8, 0]), at([23, 0]), 5)
  sheet.loop([at([0, 0]), at([14.4, 0]), at([14.4, top]), at([0, top])], 4)
  const marks: [number, number][] = []
  for (const z of heights) {
    sheet.line(at([0, z]), at([14.4, z]), z === 0 ? 4 : 3)
    if (z > 0) sheet.fill(at([0, z])[0], at([0, z])[1], at([14.4, 0])[0], at([0, z - 0.3])[1], 150)
    sheet.line(at([16, z]), at([20, z]), 2)
    marks.push(at([18, z]))
    // A tick at the mark, as on a levelled drawing.
    sheet.line(at([17.6, z + 0.5]), at([18, z]), 2)
    sheet.line(at([18.4, z + 0.5]), at([18, z]), 2)
  }
  const bar: [[number, number], [number, number]] = [at([-6, 0]), at([-6, 10])]
  sheet.line(bar[0], bar[1], 3)
  for (const z of [0, 5, 10]) sheet.line(at([-6.4, z]), at([-5.6, z]), 2)
  return { sheet: sheet.specks(200), bar, zero: at([0, 0]), marks }
}
