/** The corners of a box of size one, the lower four first, counter-clockwise. */
const CORNERS = [
  [0, 0, 0],
  [1, 0, 0],
  [1, 1, 0],
  [0, 1, 0],
  [0, 0, 1],
  [1, 0, 1],
  [1, 1, 1],
  [0, 1, 1],
] as const
/** Its faces by their corners, counted from 1, looking outwards: base, top, south, east, north, west. */
const FACES = [
  [4, 3, 2, 1],
  [5, 6, 7, 8],
  [1, 2, 6, 5],
  [2, 3, 7, 6],
  [3, 4, 8, 7],
  [4, 1, 5, 8],
]

/**
 * The OBJ lines of a box: its lower corner and its width, depth and height, m; turned about zero by `turn` degrees. `from`: corners that the
 * file has before it.
 */
export function objBox(
  [x = 0, y = 0, z = 0, w = 1, d = 1, h = 1]: readonly number[],
  from: number,
  turn = 0,
): string[] {
  const [c, s] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)]
  const corners = CORNERS.map(([i, j, k]) => {
    const [px, py] = [x + i * w, y + j * d]
    return `v ${c * px - s * py} ${s * px + c * py} ${z + k * h}`
  })
  return [...corners, ...FACES.map((f) => `f ${f.map((v) => v + from).join(' ')}`)]
}
