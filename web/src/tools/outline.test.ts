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
    return { project, scheme, level: Object.keys(scheme.levels)[0] ?? '', edges: [], id }
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
