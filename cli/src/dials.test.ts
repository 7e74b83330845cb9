import { mkdtemp } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeAll, expect, it, vi } from 'vitest'
import { openKernel } from '@geotome/core/solid'
import { told } from './told'

vi.setConfig({ testTimeout: 180_000 })

let folder = ''
beforeAll(async () => {
  await openKernel()
  folder = await mkdtemp(join(tmpdir(), 'gt-dials-'))
})
afterEach(() => void vi.restoreAllMocks())

const run = (...args: string[]) => told(args)

it('a rule is made, its dials are set and tried, it is frozen and grows again, without a screen', async () => {
  const file = join(folder, 'towers.geotome.json')
  const does = async (name: string, args: object) =>
    expect(await run('do', file, name, JSON.stringify(args), '-o', file)).toMatchObject({ code: 0, err: '' })
  await run('new', 'Towers', '-o', file)
  await does('level.line', { line: '30 x 3.5' })
  await does('rule.new', { ready: 'cluster', level: 'Ground' })
  const total = async () =>
    (JSON.parse((await run('ledger', file, '--json')).out) as { totals: { area: number } }).totals.area
  expect(await total()).toBeCloseTo(16434.96, 3)
  const tried = await run('trials', file, '--scheme', 'Scheme A', '--dial', 'inset=0.8..2.4/3', '--json')
  const trials = JSON.parse(tried.out) as { dials: { inset: number }; area: number; overlap: number }[]
  expect(trials.map((t) => t.dials.inset)).toEqual([0.8, 1.6, 2.4])
  expect(trials[0]?.area).toBeCloseTo(27996.78, 2)
  expect(trials[0]?.overlap).toBeCloseTo(28599.36 - 27996.78, 2)
  const pairs = await run('trials', file, '--dial', 'inset=2..7/2', '--dial', 'rows=1..2/2')
  expect(pairs.out).toMatch(/a side of .* is gone/)
  const set = await run('set', file, '--scheme', 'Scheme A', '--dial', 'inset=0.8', '-o', file)
  expect([set.code, set.err]).toEqual([0, ''])
  expect(await total()).toBeCloseTo(27996.78, 2)
  await does('rule.freeze', { rule: 'Tower cluster' })
  await run('set', file, '--dial', 'inset=2.3', '-o', file)
  expect(await total()).toBeCloseTo(27996.78, 2)
  await does('rule.grow', { rule: 'tower cluster' })
  expect(await total()).toBeCloseTo(16434.96, 3)
})

it('says what is wrong with a dial or a range, and writes nothing', async () => {
  const file = join(folder, 'plain.geotome.json')
  await run('new', 'Plain', '-o', file)
  const bad = async (args: string[], words: RegExp) => {
    const { code, err } = await run(...args)
    expect([code, err]).toEqual([1, expect.stringMatching(words)])
  }
  await bad(['set', file, '--dial', 'inset=2', '-o', file], /has no dial "inset"/)
  await bad(['set', file, '--dial', 'inset', '-o', file], /"inset" cannot be read/)
  await bad(['trials', file, '--dial', 'inset=1..2'], /cannot be read/)
  await bad(['trials', file, '--scheme', 'None', '--dial', 'inset=1..2/3'], /no scheme "None"/)
})
