import { beforeAll, describe, expect, it } from 'vitest'
import { blankProject } from '../project'
import { openKernel } from '../solid'
import { firstScheme, sketchOf, studyScheme } from '../study'
import { STARTERS } from './index'

beforeAll(async () => {
  await openKernel()
})

describe('a project starts from', () => {
  it.each(STARTERS.map((s) => [s.id, s] as const))('%s: without a finding but those of the brief', (_, starter) => {
    const project = starter.build(
      blankProject(() => crypto.randomUUID(), 'New', 'm', null),
      () => crypto.randomUUID(),
    )
    const study = studyScheme(project, firstScheme(project).id)
    expect(study.findings.map((f) => f.say)).toEqual([])
    const areas = { court: (46 * 40 - 20 * 14) * 5, tower: null, sheds: 3 * 13 * 30 }[starter.id]
    if (areas) expect(study.totals.area).toBeCloseTo(areas, 2)
    expect(study.totals.area).toBeGreaterThan(1000)
    const { shapes } = sketchOf(study)
    expect(shapes[0]?.tone).toBe('ground')
    expect(new Set(shapes.map((s) => s.tone)).size).toBe(4)
    for (const v of shapes.flatMap((s) => s.loops.flat())) expect(v >= 0 && v <= 200).toBe(true)
  })
})
