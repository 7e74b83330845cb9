import { beforeAll, describe, expect, it } from 'vitest'
import { openKernel, type Vec2 } from '../solid'
import { apply, massNamed, projectWith, schemeOf, studied, withMass } from '../testing/make'
import { raiseToEnvelope } from './index'

beforeAll(() => openKernel())

let n = 0
const mint = () => `e${++n}`

/** A site of 40 x 30 whose south side has a sloping limit, turned, with a block of 10 x 8 in it, 2 m from that side. */
function project(turn: number, limit: number | null, slope: { from: number; angle: number } | null) {
  const [c, s] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)]
  const at = ([x, y]: Vec2): Vec2 => [200 + c * x - s * y, 100 + s * x + c * y]
  const ring = (
    [
      [0, 0],
      [40, 0],
      [40, 30],
      [0, 30],
    ] as Vec2[]
  ).map(at)
  const [x, y] = at([10, 2])
  const plain = withMass(projectWith([0, 3]), { name: 'Block', height: 3, box: [x, y, 10, 8] }, (m) => ({
    ...m,
    place: { ...m.place, turn },
  }))
  const corners = ring.map(([cx, cy], i) => ({ id: `c${i}`, x: cx, y: cy, setback: 0, slope: i === 0 ? slope : null }))
  return apply(plain, { edit: 'project.change', set: { site: { corners, limit } } })
}
const raised = (p: ReturnType<typeof project>) =>
  studied(apply(p, raiseToEnvelope(p, schemeOf(p), mint, massNamed(p, 'Block').id)))

describe('raised to the envelope', () => {
  it.each([0, 34.2, 180])('to the permitted height, and under a sloping limit; turned by %s degrees', (turn) => {
    expect(raised(project(turn, 12, null)).forms[0]?.body.volume).toBeCloseTo(80 * 12, 5)
    // From 4 m at its side it rises by 45 degrees: 6 m over the south edge of the block, 14 over its north edge.
    expect(raised(project(turn, null, { from: 4, angle: 45 })).forms[0]?.body.volume).toBeCloseTo(80 * 10, 4)
    // Cut off at 12 m besides: the last 2 m of it in depth lose half of 2 m x 2 m.
    const both = raised(project(turn, 12, { from: 4, angle: 45 }))
    expect(both.forms[0]?.body.volume).toBeCloseTo(80 * 10 - 10 * 2, 4)
    for (const fit of both.ground.fits?.values() ?? []) expect(fit.over).toBeCloseTo(0, 3)
  })
  it('says what is missing', () => {
    expect(() => raised(project(0, null, null))).toThrow(/limits no height/)
  })
})
