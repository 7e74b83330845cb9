import { beforeAll, expect, it } from 'vitest'
import { openKernel } from '../solid'
import { massNamed, projectWith, studied, withMass, withMoves } from '../testing/make'
import type { Mass } from '../project'
import { dimensionsOf } from './dimensions'
import { faceTitle, withTitles } from './face-titles'

beforeAll(() => openKernel())

const turnedBy = (turn: number) => (m: Mass) => ({ ...m, place: { ...m.place, turn } })
const block = (turn: number, x = 0) =>
  withMass(projectWith([0, 3]), { box: [x, 0, 12, 8], height: 6, name: 'Block' }, turnedBy(turn))
const titles = (p: ReturnType<typeof block>) => {
  const form = studied(p).forms[0]
  return form ? [...new Set(form.body.solid.facets.map((f) => faceTitle(form, f.name)))].sort() : []
}

it('the sides of a mass are called by where they look on the site, the same in its outline and its body', () => {
  for (const [turn, x] of [
    [0, 0],
    [90, 0],
    [20, 400_000],
    [-100, 0],
  ] as const) {
    const p = block(turn, x)
    expect(titles(p)).toEqual(['base', 'east side', 'north side', 'south side', 'top', 'west side'])
    const long = dimensionsOf(p, p.schemes[Object.keys(p.schemes)[1] ?? ''] as never).filter((d) => d.value === 12)
    expect(long.map((d) => d.what).sort()).toEqual(
      Math.abs(turn) > 45 ? ['east side', 'west side'] : ['north side', 'south side'],
    )
  }
  expect(titles(block(45))).toContain('south-east side')
})

it('a step back above a side keeps the name of that side, and says what its own faces are', () => {
  const p = withMoves(block(0), 'Block', {
    id: 'st',
    move: 'step-back',
    on: true,
    side: 'south',
    by: 2,
    from: 3,
    level: null,
  })
  expect(massNamed(p, 'Block').recipe).toHaveLength(3)
  expect(titles(p).filter((t) => t.endsWith('south side'))).toEqual(['south side'])
  expect(titles(p)).toContain('terrace')
})

it('a sentence of a move says sides as they are called, and leaves names alone', () => {
  const form = studied(block(90)).forms[0]
  if (!form) throw new Error('no form')
  expect(withTitles(form, 'South of "South of all" would be turned over.')).toBe(
    'East side of "South of all" would be turned over.',
  )
})
