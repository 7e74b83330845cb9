import { beforeAll, describe, expect, it } from 'vitest'
import { box, build, outline, raise, turned } from '../testing/recipes'
import { isWhole, openKernel } from '../solid'
import type { Move, OutlineShape } from './index'

beforeAll(() => openKernel())

const pane: OutlineShape = { kind: 'rectangle', width: 2, depth: 1.5 }
const patch = (face: string, by: number, shape: OutlineShape = pane): Move => ({
  id: 'p',
  move: 'patch',
  on: true,
  face,
  along: 3,
  up: 1,
  shape,
  by,
})

describe('a patch on a face', () => {
  it.each(['r/e1', 'r/e2', 'r/e3', 'r/e4', 'r/top', 'r/base'])(
    'recesses and stands out on %s, however it is turned',
    (face) => {
      for (const turn of face.startsWith('r/e') ? [0, 27.5] : [0]) {
        const block = [outline(turned(box(10, 8), turn)), raise(4)]
        const recessed = build(...block, patch(face, -0.5))
        expect(recessed.leftOut).toEqual([])
        expect(recessed.volume).toBeCloseTo(320 - 1.5, 6)
        expect(isWhole(recessed.solid)).toBe(true)
        const out = build(...block, patch(face, 0.5))
        expect(out.volume).toBeCloseTo(320 + 1.5, 6)
        expect(out.faces.map((f) => f.name)).toContain(face)
        expect(out.faces.find((f) => f.name === 'p/front')?.area).toBeCloseTo(3, 8)
      }
    },
  )
  it('lies from the left end as seen from outside, on a roof too; round ones are round', () => {
    const { faces } = build(outline(box(10, 8)), raise(4), patch('r/e2', 1))
    // The east side is seen from the east: its left end lies to the south.
    const ys = faces.find((f) => f.name === 'p/front')?.loops[0]?.points.map((p) => p[1]) ?? []
    expect([Math.min(...ys), Math.max(...ys)].map((y) => Number(y.toFixed(6)))).toEqual([3, 5])
    const roof = build(
      outline(box(10, 8)),
      raise(4),
      { id: 'h', move: 'hip', on: true, angle: 40, edges: [], breaks: null, upper: 20 },
      patch('h/e1', 0.4),
    )
    expect(roof.leftOut).toEqual([])
    expect(isWhole(roof.solid)).toBe(true)
    const round = build(outline(box(10, 8)), raise(4), patch('r/e1', -1, { kind: 'circle', radius: 0.8 }))
    expect(round.volume).toBeCloseTo(320 - Math.PI * 0.64, 5)
    expect(round.faces.filter((f) => f.name === 'p/round')).toHaveLength(1)
  })
  it('is left out with a sentence where its face is gone', () => {
    expect(build(outline(box(10, 8)), raise(4), patch('r/e9', 1)).leftOut[0]?.say).toMatch(/no flat face/)
  })
})
