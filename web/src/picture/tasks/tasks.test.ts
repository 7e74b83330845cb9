import { describe, expect, it } from 'vitest'
import { applyEdit } from '@geotome/core/edits'
import { levelHeights } from '@geotome/core/levels'
import { blankProject, calibrate, inOrder, numbersOf, type Picture } from '@geotome/core/project'
import type { Vec2 } from '@geotome/core/solid'
import { calibrateTask } from './calibrate'
import { cropTask } from './crop'
import type { BenchEvent, BenchWorld, Picking, Task } from './kind'
import { levelsTask } from './levels'
import { measureTask } from './measure'
import { afterEvent } from './run'
import { traceTask } from './trace'

const PICTURE: Picture = {
  id: 'pic',
  name: 'Sketch of the quay',
  order: 1,
  asset: 'a'.repeat(64),
  type: 'image/png',
  width: 1000,
  height: 800,
  crop: null,
  turn: 0,
  opacity: 1,
  locked: false,
  pairs: [],
  pin: { px: [0, 800], to: { kind: 'point', x: 0, y: 0, z: 0 } },
  stands: [],
}
/** 20 mm to a pixel */
const CALIBRATED = {
  pairs: [{ id: 'p', a: [100, 700] as Vec2, b: [600, 700] as Vec2, length: 10, lies: 'level' as const }],
}

/** A task at work beside any page. */
function work<S extends Picking>(task: Task<S>, more: Partial<Picture> = {}) {
  let n = 0
  const mint = () => `id-${++n}`
  let project = applyEdit(blankProject(mint, 'Quay', 'm', null), {
    edit: 'picture.add',
    thing: { ...PICTURE, ...more },
  }).project
  const world = (): BenchWorld => ({
    project,
    scheme: inOrder(project.schemes)[0] as BenchWorld['scheme'],
    picture: project.pictures.pic as Picture,
    mint,
  })
  let state = task.begin(world())
  const said: string[] = []
  let open = true
  return {
    send(event: BenchEvent<S>) {
      const after = afterEvent(task, state, event, world(), (_, edit) => {
        project = applyEdit(project, edit()).project
        return true
      })
      if (!after) return false
      state = after.state
      if (after.refused) said.push(after.refused)
      if (after.close) open = false
      return true
    },
    pick(...points: Vec2[]) {
      for (const at of points) this.send({ kind: 'pick', at })
    },
    state: () => state,
    project: () => project,
    picture: () => world().picture,
    lines: () => task.lines(state, world()),
    hint: () => task.hint(state, world()),
    said,
    isOpen: () => open,
  }
}

describe('on the bench', () => {
  it('two points and a length are the scale, and what is no length changes nothing', () => {
    const at = work(calibrateTask)
    at.pick([100, 700], [600, 710])
    expect(at.hint()).toContain('Type how far')
    at.send({ kind: 'change', set: { length: 'ten' } })
    at.send({ kind: 'accept' })
    expect(at.picture().pairs).toEqual([])
    at.send({ kind: 'change', set: { length: '5 + 5' } })
    at.send({ kind: 'accept' })
    const found = calibrate(at.picture(), numbersOf(at.project(), null))
    expect(found?.scale).toBeCloseTo(10 / Math.hypot(500, 10), 9)
    expect(at.state()).toMatchObject({ points: [], length: '' })
  })
  it('a pair that contradicts what is told of it is asked about before it is taken', () => {
    const at = work(calibrateTask)
    at.pick([100, 0], [120, 400])
    at.send({ kind: 'change', set: { length: '10' } })
    at.send({ kind: 'accept' })
    expect(at.picture().pairs).toEqual([])
    at.send({ kind: 'change', set: { lies: 'plumb' } })
    at.send({ kind: 'accept' })
    expect(at.picture().pairs).toMatchObject([{ lies: 'plumb' }])
    at.pick([100, 0], [300, 400])
    at.send({ kind: 'change', set: { length: '10', sure: true } })
    at.send({ kind: 'accept' })
    expect(at.picture().pairs).toHaveLength(2)
    // Two points on one pixel give no scale.
    at.pick([100, 0], [100, 0])
    at.send({ kind: 'change', set: { length: '10', lies: 'anyhow' } })
    at.send({ kind: 'accept' })
    expect(at.said).toEqual([expect.stringContaining('less than a pixel apart')])
  })
  it('the pin is one pick, and leaves the points of a pair as they were', () => {
    const at = work(calibrateTask)
    at.pick([100, 700])
    at.send({ kind: 'change', set: { pinning: true } })
    at.pick([321.25, 640.5])
    expect(at.picture().pin.px).toEqual([321.25, 640.5])
    expect(at.state()).toMatchObject({ points: [[100, 700]], pinning: false })
  })
  it('a measure is kept with its last point; a circle may be drawn from its centre; three points in a line are none', () => {
    const at = work(measureTask, CALIBRATED)
    at.pick([0, 0], [300, 400])
    at.send({ kind: 'change', set: { kind: 'radius', fromCentre: true } })
    at.pick([500, 400], [560, 480])
    at.send({ kind: 'change', set: { fromCentre: false } })
    at.pick([0, 0], [100, 0], [200, 0])
    expect(at.said).toHaveLength(1)
    const numbers = numbersOf(at.project(), null)
    const values = inOrder(at.project().measures).map((m) => numbers.value({ formula: `{${m.id}}` }, 'length'))
    expect(values.map((v) => Number(v.toFixed(6)))).toEqual([10, 2])
  })
  it('an area is closed by Enter, and by nothing else', () => {
    const at = work(measureTask, CALIBRATED)
    at.send({ kind: 'change', set: { kind: 'area' } })
    at.pick([0, 0], [100, 0], [100, 50])
    expect(inOrder(at.project().measures)).toHaveLength(0)
    at.pick([0, 50])
    at.send({ kind: 'accept' })
    const [area] = inOrder(at.project().measures)
    expect(numbersOf(at.project(), null).value({ formula: `{${area?.id}}` }, 'area')).toBeCloseTo(2 * 1, 9)
  })
  it('a line closes on its first corner, goes on in an arc that leaves it tangentially, and needs its points', () => {
    const at = work(traceTask)
    at.pick([100, 100], [300, 100])
    at.send({ kind: 'key', key: 'A' })
    at.pick([300, 300])
    expect(at.state().bulges[1]).toBeCloseTo(1, 6)
    at.send({ kind: 'key', key: 'a' })
    at.pick([100, 300], [102, 101])
    const [trace] = inOrder(at.project().traces)
    expect(trace).toMatchObject({ closed: true, name: 'Traced 1' })
    expect(trace?.loops[0]?.points).toEqual([
      [100, 100],
      [300, 100],
      [300, 300],
      [100, 300],
    ])
    expect(at.state().points).toEqual([])
    at.pick([0, 0])
    at.send({ kind: 'accept', how: 'open' })
    expect(at.said).toEqual(['A line needs two points.'])
    expect(at.send({ kind: 'key', key: 'x' })).toBe(false)
  })
  it('marks become levels by their heights, a double only when it is ticked, and the bench closes', () => {
    const at = work(levelsTask, CALIBRATED)
    at.pick([50, 700], [50, 530], [52, 531], [50, 360])
    expect(at.lines().map((l) => l.label)).toEqual(['1  0.000', '2  +3.400', '3  +3.400', '4  +6.800'])
    at.send({ kind: 'change', set: { rows: { 1: { name: 'First' }, 3: { kind: 'mark' } } } })
    at.send({ kind: 'accept' })
    expect(at.isOpen()).toBe(true)
    at.send({ kind: 'accept', how: 'make' })
    expect(at.isOpen()).toBe(false)
    const scheme = inOrder(at.project().schemes)[0] as BenchWorld['scheme']
    const added = levelHeights(at.project(), scheme).filter((l) => l.height > 0)
    expect(added.map((l) => [l.name, l.kind, Number(l.height.toFixed(6))])).toEqual([
      ['First', 'storey', 3.4],
      ['Read 4', 'mark', 6.8],
    ])
  })
  it('a crop has its corners in whatever order they are picked, and ends at the edge of the picture', () => {
    const at = work(cropTask)
    at.pick([1200, 50], [300, 900])
    at.send({ kind: 'accept' })
    expect(at.picture().crop).toEqual([300, 50, 1000, 800])
  })
})
