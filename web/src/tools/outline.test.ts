import type { Frame } from '@geotome/core/solid'
import { describe, expect, it } from 'vitest'
import { applyEdit, type Edit } from '@geotome/core/edits'
import { blankProject, inOrder } from '@geotome/core/project'
import type { PointerAt, Taken, ToolEvent, World } from './kind'
import { createRunner } from './runner'

/** A place of work beside any page: what is made is kept, what is shown is noted. */
function workplace(taken: Taken) {
  let project = blankProject(() => crypto.randomUUID(), 'Quay', 'm', null)
  const made: string[] = []
  const said: string[] = []
  let now: Taken | null = taken
  let shown: Edit | null = null
  let changed = () => {}
  const world = (id: World['id']): World => {
    const scheme = inOrder(project.schemes)[0]
    if (!scheme) throw new Error('no scheme')
    return { project, scheme, level: Object.keys(scheme.levels)[0] ?? '', edges: [], marks: [], id }
  }
  const runner = createRunner({
    taken: () => now,
    world,
    make: (label, edit) => {
      project = applyEdit(project, edit()).project
      made.push(label)
      return true
    },
    show: (edit) => {
      shown = edit ? edit() : null
    },
    refuse: (say) => void said.push(say),
    leave: () => {
      now = null
      changed()
    },
    pick: () => {},
    take: (next) => {
      now = next
      changed()
    },
    follow: (tell) => {
      changed = tell
    },
  })
  const press = (x: number, y: number) => {
    runner.answer(move(x, y))
    runner.answer({ kind: 'press' })
  }
  const move = (x: number, y: number, more: Partial<PointerAt> = {}): ToolEvent => ({
    kind: 'move',
    at: { raw: [x, y], spot: null, pixel: 0.01, held: false, pane: 'plan', up: 0, out: 0, ...more },
  })
  return {
    runner,
    made,
    said,
    /** moves there, and presses */
    press,
    presses: (points: [number, number][]) => points.forEach(([x, y]) => press(x, y)),
    move: (x: number, y: number, more?: Partial<PointerAt>) => runner.answer(move(x, y, more)),
    type: (...texts: string[]) => texts.forEach((text, field) => runner.answer({ kind: 'type', field, text })),
    enter: () => runner.answer({ kind: 'accept' }),
    back: () => runner.answer({ kind: 'back' }),
    scheme: () => world(() => '').scheme,
    shown: () => shown,
    isTaken: () => now !== null,
  }
}

describe('an outline is drawn', () => {
  it('by presses: a rectangle, then its height, shown before it is made', () => {
    const t = workplace({ tool: 'rectangle', becomes: 'mass' })
    t.press(2, 3)
    t.press(14, 11)
    t.move(14, 11, { up: 0 })
    t.move(14, 11, { up: 3.02 })
    expect(t.shown()).toMatchObject({ edit: 'mass.add' })
    expect(t.made).toEqual([])
    t.runner.answer({ kind: 'press' })
    expect(t.made).toEqual(['draw Mass 1'])
    const mass = Object.values(t.scheme().masses)[0]
    expect(mass?.recipe[0]).toMatchObject({ shape: { kind: 'rectangle', width: 12, depth: 8 } })
    expect(mass?.recipe[1]).toMatchObject({ height: 12 })
    expect(t.isTaken()).toBe(false)
  })
  it('by typing, wherever the pointer is; what is typed wins, sums and units are read', () => {
    const t = workplace({ tool: 'circle', becomes: 'mass' })
    t.move(100, 100)
    t.type('5', '2+2')
    t.enter()
    t.type('650 cm')
    t.enter()
    t.type('7.5')
    t.enter()
    expect(Object.values(t.scheme().masses)[0]).toMatchObject({
      place: { x: 5, y: 4 },
      recipe: [{ shape: { kind: 'circle', radius: 6.5 } }, { height: 7.5 }],
    })
  })
  it('as equal sides whose number is half typed: what was drawn before stays on the plane', () => {
    const t = workplace({ tool: 'circle', becomes: 'mass' })
    t.runner.answer({ kind: 'choose', choice: 'equal sides' })
    t.press(0, 0)
    t.move(6, 0)
    const before = t.runner.running()?.marks
    for (const half of ['1', '', '0', '1e9', '-4']) {
      t.runner.answer({ kind: 'type', field: 1, text: half })
      expect(t.runner.running()?.marks).toEqual(before)
    }
  })
  it('as a ready footprint within a rectangle, or as equal sides on a circle, by a choice that its key goes through', () => {
    const t = workplace({ tool: 'rectangle', becomes: 'mass' })
    expect(t.runner.running()?.choices).toMatchObject({ chosen: 'rectangle', key: 'A' })
    t.runner.answer({ kind: 'choose', choice: 'H' })
    t.press(0, 0)
    t.move(18, 12.6)
    expect(t.runner.running()?.marks[0]).toMatchObject({ kind: 'path', points: { length: 12 } })
    t.press(18, 12.6)
    expect(t.runner.running()?.choices).toBeNull()
    t.type('9')
    t.enter()
    expect(Object.values(t.scheme().masses)[0]?.recipe[0]).toMatchObject({
      shape: { kind: 'footprint', form: 'H', width: 18, depth: 12.6, a: 5.4, b: 3.8 },
    })
    const c = workplace({ tool: 'circle', becomes: 'mass' })
    c.runner.answer({ kind: 'choose', choice: 'equal sides' })
    c.press(0, 0)
    c.type('8.6', '2')
    c.enter()
    expect(c.said).toEqual(['That is no number of sides. Type a whole number from 3 to 200.'])
    c.type('8.6', '14')
    c.enter()
    c.enter()
    expect(Object.values(c.scheme().masses)[0]?.recipe[0]).toMatchObject({
      shape: { kind: 'regular', sides: 14, by: 'corners', size: 8.6 },
    })
    // What has no place for them draws none: a site, a hole.
    expect(workplace({ tool: 'rectangle', becomes: 'site' }).runner.running()?.choices).toBeNull()
  })
  it('what cannot be read is refused with its sentence, and nothing is set', () => {
    const t = workplace({ tool: 'rectangle', becomes: 'mass' })
    t.press(0, 0)
    t.type('12 parsecs', '4')
    t.enter()
    expect(t.said).toHaveLength(1)
    expect(t.runner.running()?.step).toBe('outline 1')
  })
  it('goes back step by step, and ends where nothing is left', () => {
    const t = workplace({ tool: 'polygon', becomes: 'mass' })
    t.presses([
      [0, 0],
      [10, 0],
      [10, 6],
    ])
    t.enter()
    expect(t.runner.running()?.step).toBe('height 3')
    t.back()
    expect(t.shown()).toBeNull()
    for (const step of ['outline 2', 'outline 1', 'outline 0']) {
      t.back()
      expect(t.runner.running()?.step).toBe(step)
    }
    t.back()
    expect(t.isTaken()).toBe(false)
    expect(t.made).toEqual([])
  })
  it('that crosses itself is refused', () => {
    const t = workplace({ tool: 'polygon', becomes: 'mass' })
    t.presses([
      [0, 0],
      [10, 6],
      [10, 0],
      [0, 6],
    ])
    t.enter()
    expect(t.said[0]).toContain('The outline')
    expect(t.made).toEqual([])
  })
  it('with an arc that goes on from the last side', () => {
    const t = workplace({ tool: 'polygon', becomes: 'mass' })
    t.press(0, 0)
    t.press(10, 0)
    t.runner.answer({ kind: 'choose', choice: 'tangent' })
    t.press(10, 8)
    t.runner.answer({ kind: 'choose', choice: 'straight' })
    t.press(0, 8)
    t.enter()
    t.enter()
    const outline = Object.values(t.scheme().masses)[0]?.recipe[0]
    expect(outline).toMatchObject({ shape: { kind: 'polygon', corners: [{}, { bulge: 1 }, {}, {}] } })
  })
  it('and becomes what it was begun for', () => {
    const t = workplace({ tool: 'polygon', becomes: 'site' })
    t.presses([
      [0, 0],
      [30, 0],
      [30, 20],
      [0, 20],
    ])
    t.enter()
    expect(t.made).toEqual(['draw the site'])
  })
})

describe('a measure on the model', () => {
  it('is kept as soon as it has its points, and the next one can follow', () => {
    const t = workplace({ tool: 'measure' })
    const to = (x: number, y: number, z: number) => {
      t.move(x, y, { spot: { point: [x, y, z], isCorner: true } })
      t.runner.answer({ kind: 'press' })
    }
    to(0, 0, 0)
    to(3, 4, 0)
    expect(t.made).toEqual(['measure distance'])
    to(0, 0, 0)
    to(0, 0, 9)
    expect(t.made).toHaveLength(2)
    t.runner.answer({ kind: 'choose', choice: 'radius' })
    for (const x of [0, 1, 2]) to(x, 0, 0)
    expect(t.said).toHaveLength(1)
    expect(t.isTaken()).toBe(true)
  })
})

describe('the ways to draw an outline', () => {
  const outlineOf = (t: ReturnType<typeof workplace>) => {
    const mass = Object.values(t.scheme().masses).at(-1)
    const outline = mass?.recipe[0]
    return outline?.move === 'outline' && mass ? { shape: outline.shape, place: mass.place } : null
  }
  const choose = (t: ReturnType<typeof workplace>, choice: string) => t.runner.answer({ kind: 'choose', choice })

  it('a rectangle from its middle, by typed sizes', () => {
    const t = workplace({ tool: 'rectangle', becomes: 'mass' })
    choose(t, 'from its middle')
    t.press(10, 4)
    t.move(12, 5)
    t.type('12', '6')
    t.enter()
    t.enter()
    expect(outlineOf(t)).toMatchObject({ shape: { kind: 'rectangle', width: 12, depth: 6 }, place: { x: 4, y: 1 } })
  })
  it('a rectangle by three points is turned, and keeps width and depth; drawn to either side', () => {
    for (const side of [1, -1]) {
      const t = workplace({ tool: 'rectangle', becomes: 'mass' })
      choose(t, 'by three points')
      t.press(10, 4)
      t.type('10', '53.13')
      t.enter()
      t.move(14 - 3 * side, 7 + 4 * side)
      t.type('5')
      t.enter()
      t.enter()
      const drawn = outlineOf(t)
      expect(drawn?.shape).toMatchObject({ kind: 'rectangle', width: 10, depth: 5 })
      expect(drawn?.place.turn).toBeCloseTo(36.87, 6)
      // Drawn to the right, its own zero is where the far side begins.
      const a = (36.87 * Math.PI) / 180
      expect(drawn?.place.x).toBeCloseTo(side > 0 ? 10 : 10 + 5 * Math.sin(a), 6)
    }
  })
  it('equal sides by their flats and by one side: the size is kept as it was told', () => {
    for (const [way, by, size] of [
      ['across flats', 'flats', 9],
      ['by one side', 'side', 4.5],
    ] as const) {
      const t = workplace({ tool: 'circle', becomes: 'mass' })
      choose(t, way)
      t.press(0, 0)
      t.move(3, 0)
      t.type(String(size), '8')
      t.enter()
      t.enter()
      const shape = outlineOf(t)?.shape as { by: string; size: number; sides: number }
      expect(shape).toMatchObject({ kind: 'regular', by, sides: 8 })
      expect(shape.size).toBe(size)
    }
  })
  it('a free curve through points is made of arcs, and closes', () => {
    const t = workplace({ tool: 'polygon', becomes: 'mass' })
    t.press(0, 0)
    choose(t, 'curve')
    t.presses([
      [10, 0],
      [12, 6],
      [4, 9],
    ])
    t.enter()
    t.enter()
    const { shape } = outlineOf(t) as { shape: { corners: { bulge: number }[] } }
    expect(shape.corners).toHaveLength(8)
    expect(shape.corners.every((c) => c.bulge !== 0)).toBe(true)
  })
  it('on a face: in its own axes, out of it or into it', () => {
    const on = {
      kind: 'face' as const,
      mass: 'm',
      face: 'r/south',
      label: 'south',
      frame: { origin: [0, 0, 0], u: [1, 0, 0], v: [0, 0, 1], w: [0, -1, 0] } as Frame,
      region: [],
    }
    const t = workplace({ tool: 'rectangle', becomes: 'patch', of: 'm', on })
    t.press(1, 2)
    t.type('3', '1.5')
    t.enter()
    expect(t.runner.running()?.fields.map((f) => f.label)).toEqual(['out'])
    expect(t.runner.running()?.marks.flatMap((m) => (m.kind === 'path' ? m.points : []))).toContainEqual([4, 0, 3.5])
    t.move(0, 0, { out: 7 })
    t.move(0, 0, { out: 6.38 })
    expect(t.runner.running()?.fields[0]?.live).toContain('-0.6')
    // There is no such mass here: that is said, and nothing is made.
    t.enter()
    expect(t.said.at(-1)).toMatch(/mass/i)
  })
})
