import { expect, it } from 'vitest'
import { shadesOf } from '../picture'
import { apply, changeMass, massNamed, minter, projectWith, schemeOf, studied, withMass } from '../testing/make'
import { ruleRun, type Picture, type Project } from '../project'
import { newRule, newStep, changeRule } from '../form'
import type { Rule } from './index'

const mint = minter('given')
const ONLY = (project: Project): Rule => Object.values(schemeOf(project).rules)[0] as Rule

/** A rule of 4 x 1 cells of 10 x 10 about a place, turned, and a number for each in some way. */
function given(project: Project, set: object, place = { x: 0, y: 0, turn: 0 }): number[] {
  const scheme = schemeOf(project)
  const [level] = Object.keys(scheme.levels)
  const begun = apply(
    project,
    newRule(project, scheme, mint, { use: Object.keys(project.uses)[0] ?? '', level: level ?? '', at: [0, 0] }, null),
  )
  const shape = { kind: 'rectangle' as const, width: 40, depth: 10 }
  const steps = [
    newStep('plan', mint, { shape, x: 0, y: 0, turn: 0 }),
    newStep('divide', mint, { how: 'cells', columns: 4, rows: 1, direction: 0 }),
    newStep('number', mint, { name: 'high', is: 'length', a: 0, b: 30, ...set }),
  ]
  const made = apply(begun, changeRule(schemeOf(begun), ONLY(begun).id, { steps, place }))
  const run = ruleRun(made, schemeOf(made), ONLY(made))
  if (run.failed) throw new Error(`${run.failed.say} ${run.failed.remedy}`)
  remarks = run.remarks.map((r) => r.say)
  return run.cells.map((c) => Math.round((c.given[steps[2]?.id ?? ''] ?? NaN) * 1e6) / 1e6)
}
let remarks: string[] = []
const plain = () => projectWith([0, 3], mint)

it('goes by the distance to a line, straight or as a smooth curve', () => {
  // Cells stand at -15, -5, 5, 15; the line runs north through 15.
  const line = [15, -100, 15, 0, 15, 100]
  expect(given(plain(), { how: 'line', line, far: 30 })).toEqual([30, 20, 10, 0])
  expect(given(plain(), { how: 'line', line, far: 30, curve: 'smooth' })).toEqual([30, 20, 10, 0])
  expect(given(plain(), { how: 'line', line, far: 20 })).toEqual([30, 30, 15, 0])
  // A quarter of a circle about (-15, 0) of radius 20, through three of its points: 20, 10, 0, 10 from the cells.
  const round = [5, 0, -15 + 20 * Math.SQRT1_2, 20 * Math.SQRT1_2, -15, 20]
  const curved = given(plain(), { how: 'line', line: round, far: 30, curve: 'smooth' })
  expect(curved).toEqual([20, 10, 0, 10])
  expect(given(plain(), { how: 'line', line: round, far: 30 })[1]).toBeLessThan(10)
  expect(() => given(plain(), { how: 'line', line: [1, 2, 3] })).toThrow(/3 numbers make no line/)
})

it('goes by the distance to a mass, wherever both stand', () => {
  const host = withMass(plain(), { name: 'Shaft', height: 3, box: [25, -5, 10, 10] })
  const { id } = massNamed(host, 'Shaft')
  expect(given(host, { how: 'mass', mass: id, far: 40 })).toEqual([30, 22.5, 15, 7.5])
  const { x, y } = massNamed(host, 'Shaft').place as { x: number; y: number }
  const far = changeMass(host, 'Shaft', { place: { x: x + 4000, y: y + 300, turn: 0 } })
  expect(given(far, { how: 'mass', mass: id, far: 40 }, { x: 4000, y: 300, turn: 0 })).toEqual([30, 22.5, 15, 7.5])
  expect(() => given(plain(), { how: 'mass', mass: id })).toThrow(/is gone, or has no outline/)
})

/** A picture of 40 x 10 pixels, black in the east and white in the west, a metre to ten pixels; it lies about a point. */
function pictured(project: Project, x: number, y: number, shaded = true): Project {
  const [width, height] = [400, 100]
  const data = new Uint8ClampedArray(4 * width * height)
  for (let i = 0; i < width * height; i++)
    data.set(
      [0, 0, 0, 255].map((v) => (i % width < 200 && v === 0 ? 255 : v)),
      4 * i,
    )
  const thing: Picture = {
    id: 'pic',
    name: 'Dark east',
    order: 0,
    asset: 'a'.repeat(64),
    type: 'image/png',
    width,
    height,
    crop: null,
    turn: 0,
    opacity: 1,
    locked: false,
    pairs: [{ id: 'p', a: [0, 0], b: [400, 0], length: 40, lies: 'anyhow' }],
    pin: { px: [200, 50], to: { kind: 'point', x, y, z: 0 } },
    stands: [{ id: 'st', lies: { kind: 'plan', level: null, above: 0 }, shown: true, front: false }],
    ...(shaded ? { shades: shadesOf({ width, height, data }) } : {}),
  }
  return apply(project, { edit: 'picture.add', thing })
}

it('goes by the darkness of a picture that lies under it, also turned and far away', () => {
  expect(given(pictured(plain(), 0, 0), { how: 'picture', picture: 'pic' })).toEqual([0, 0, 30, 30])
  expect(given(pictured(plain(), 0, 0), { how: 'picture', picture: 'pic' }, { x: 0, y: 0, turn: 180 })).toEqual([
    30, 30, 0, 0,
  ])
  const [x, y] = [3456.5, -1234.25]
  expect(given(pictured(plain(), x, y), { how: 'picture', picture: 'pic' }, { x, y, turn: 0 })).toEqual([0, 0, 30, 30])
  expect(remarks).toEqual([])
  expect(given(pictured(plain(), -20, 0), { how: 'picture', picture: 'pic' })).toEqual([30, 30, 0, 0])
  expect(remarks.join()).toContain('beside the picture')
})

it('says what is amiss with a picture, and grows nothing meanwhile', () => {
  const say = (project: Project, picture: string | null) => {
    try {
      given(project, { how: 'picture', picture })
    } catch (e) {
      return String(e)
    }
    return ''
  }
  expect(say(plain(), null)).toContain('No picture is chosen')
  expect(say(plain(), 'pic')).toContain('is gone')
  expect(say(pictured(plain(), 0, 0, false), 'pic')).toContain('has not been read yet')
  const upright = apply(pictured(plain(), 0, 0), {
    edit: 'picture.change',
    id: 'pic',
    set: { stands: [{ id: 'st', lies: { kind: 'upright', azimuth: 0, toward: 0 }, shown: true, front: false }] },
  })
  expect(say(upright, 'pic')).toContain('not laid in plan')
  expect(studied(upright).forms).toEqual([])
})

it('reads shades: light as it looks, what is clear as paper, between fields in equal steps', () => {
  const { columns, rows, dark } = shadesOf({
    width: 2,
    height: 1,
    data: new Uint8ClampedArray([0, 255, 0, 255, 0, 0, 0, 0]),
  })
  expect([columns, rows, dark]).toEqual([64, 32, expect.any(String)])
})
