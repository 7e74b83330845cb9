import { expect, test } from 'vitest'
import type { LoggedEdit } from '../app/api'
import { historySteps } from './history-steps'

const HOUR = 3_600_000
const logged = (seq: number, ago: number): LoggedEdit => ({
  seq,
  id: `e${seq}`,
  author: 'a',
  label: `edit ${seq}`,
  kind: seq % 5 === 0 ? 'undo' : 'edit',
  edit: { edit: 'batch', edits: [] },
  at: new Date(Date.now() - ago).toISOString(),
})

test('the last edits are steps of one each, and no more than are asked for', () => {
  const log = Array.from({ length: 30 }, (_, i) => logged(i + 1, (30 - i) * 60 * HOUR))
  const steps = historySteps(log, 'last', 12)
  expect(steps.map((s) => s.seq)).toEqual([19, 20, 21, 22, 23, 24, 25, 26, 27, 28, 29, 30])
  expect(steps[1]?.label).toBe('undo: edit 20')
})

test('the edits of today leave out those of days before; many are taken together, none is lost', () => {
  const log = [logged(1, 50 * HOUR), ...Array.from({ length: 25 }, (_, i) => logged(i + 2, 0))]
  const steps = historySteps(log, 'today', 10)
  expect(steps.flatMap((s) => s.edits.map((e) => e.seq))).toEqual(Array.from({ length: 25 }, (_, i) => i + 2))
  expect(steps).toHaveLength(9)
  expect(steps[0]?.label).toBe('edit 4, and 2 before it')
  expect(steps.at(-1)?.seq).toBe(26)
})

test('a day without edits has no steps', () => {
  expect(historySteps([logged(1, 50 * HOUR)], 'today', 10)).toEqual([])
})
