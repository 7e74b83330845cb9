import { beforeAll, describe, expect, it } from 'vitest'
import { formatNamed, writeFormat } from '../exchange'
import { readProjectFile, type Project, type StudyNode } from '../project'
import { openKernel } from '../solid'
import { siteOf } from '../testing/grounds'
import { converted, massNamed, projectWith, schemeOf, studied, withMass } from '../testing/make'
import { StudyCache } from './cache'
import { NOT_COMPUTED } from './findings'
import { studyScheme } from './study'

beforeAll(() => openKernel())

const onSite = (project: Project, limit: number): Project => ({ ...project, site: siteOf(50, 40, { limit }) })

describe('a mass wholly above the permitted height', () => {
  it('is over by the whole of its volume, and all else is computed', () => {
    const box = withMass(projectWith([0, 3, 6, 9, 12]), { box: [0, 0, 10, 10], height: 3, level: 'L4' })
    const { ground, totals, findings } = studied(onSite(box, 9))
    expect([...ground.fits.values()][0]?.over).toBeCloseTo(300, 6)
    expect(totals.area).toBeCloseTo(100, 6)
    expect(findings.map((f) => f.kind)).toContain('over the envelope')
  })
  it('by a hundredth of a millimetre is computed too', () => {
    const { ground, totals } = studied(
      onSite(withMass(projectWith([0, 3, 6]), { box: [0, 0, 10, 10], height: 9.00001 }), 9),
    )
    expect([...ground.fits.values()][0]?.limits[0]).toMatchObject({ limit: 'height', side: null, over: 0.00001 })
    expect(totals.area).toBeCloseTo(300, 6)
  })
})

describe('a roof that others cover wholly', () => {
  it('has no body and says so; the roofs of those that stand free keep theirs', () => {
    let project = withMass(projectWith([0, 3]), { name: 'Low', box: [2, 2, 4, 4], height: 3 })
    project = withMass(project, { name: 'Free', box: [20, 0, 5, 5], height: 3 })
    project = withMass(converted(project), { name: 'Tall', box: [0, 0, 9, 9], height: 9 })
    const { parts } = studied(project)
    const roofs = parts.filter((p) => p.part.kind === 'roof')
    expect(roofs.map((p) => [p.area, p.body === null, p.bond.status])).toEqual([
      [0, true, 'loose'],
      [25, false, 'bonded'],
    ])
  })
})

describe('a node of the study that throws', () => {
  /** Masses that meet, parts, a site with a limit and a slope, ground, a neighbour, a wing, and one mass far from all others. */
  function everything(): Project {
    let project = withMass(projectWith([0, 3, 6]), { name: 'Bar', box: [0, 0, 12, 8], height: 9 })
    project = withMass(project, { name: 'Wing', box: [8, 4, 12, 8], height: 6, use: 'studios' })
    project = withMass(project, { name: 'Alone', box: [30, 20, 10, 10], height: 8, use: 'market' })
    project = converted(onSite(project, 7))
    const scheme = schemeOf(project)
    const ring = [[-1, -1], [25, -1], [25, 15], [-1, 15]] as [number, number][] // prettier-ignore
    return {
      ...project,
      terrain: { kind: 'level', height: -0.5 },
      neighbours: { n: { id: 'n', name: 'Next door', order: 0, outline: ring, base: null, height: 6 } },
      schemes: {
        ...project.schemes,
        [scheme.id]: { ...scheme, wings: { w: { id: 'w', name: 'West', order: 0, outline: ring } } },
      },
    }
  }
  const study = (project: Project, probe: (node: StudyNode) => void) =>
    studyScheme(project, schemeOf(project).id, new StudyCache(probe))

  it('becomes a finding on its thing, and all others go on', () => {
    const project = everything()
    const nodes: StudyNode[] = []
    const plain = study(project, (node) => nodes.push(node))
    const alone = massNamed(project, 'Alone').id
    const market = (s: typeof plain) => s.floors.map((f) => f.uses[massNamed(project, 'Alone').use] ?? 0)
    expect(new Set(nodes.map((n) => n.what)).size).toBeGreaterThan(18)
    expect(market(plain)).toEqual([100, 100, 100].map((a) => expect.closeTo(a, 6) as number))
    for (const broken of nodes) {
      const then = study(project, (node) => {
        if (node.what === broken.what && node.id === broken.id && node.level === broken.level)
          throw new TypeError('Cannot read properties of undefined')
      })
      const said = then.findings.filter((f) =>
        broken.what === 'body' ? f.kind === 'cannot be built' : f.kind === NOT_COMPUTED,
      )
      expect(said, JSON.stringify(broken)).not.toHaveLength(0)
      expect(said[0]?.say).toContain(broken.name)
      expect(said[0]?.masses).toEqual(broken.masses ?? [])
      // The mass far from all others is as it was, unless it or its level is the thing that failed.
      const own = broken.id === alone || broken.masses?.includes(alone) === true
      if (!own && broken.level === undefined) expect(market(then)).toEqual(market(plain))
      if (!own && broken.what !== 'place in the envelope')
        expect(then.forms.map((f) => f.name)).toEqual(
          plain.forms.map((f) => f.name).filter((name) => broken.what !== 'body' || name !== broken.name),
        )
    }
  })

  it('is tried again by the next study with the same cache, and is as it was when nothing fails any more', () => {
    const project = everything()
    let broken: string | null = null
    const cache = new StudyCache((node) => {
      if (node.what === broken) throw new Error('no')
    })
    const again = () => studyScheme(project, schemeOf(project).id, cache)
    const whole = again()
    for (broken of ['floor', 'common floor', 'joined wall', 'shape', 'net floor', 'place in the envelope']) {
      const fresh = new StudyCache((node) => {
        if (node.what === broken) throw new Error('no')
      })
      const first = studyScheme(project, schemeOf(project).id, fresh)
      const second = studyScheme(project, schemeOf(project).id, fresh)
      expect(second.findings.map((f) => f.key)).toEqual(first.findings.map((f) => f.key))
      expect(first.findings.filter((f) => f.kind === NOT_COMPUTED)).not.toHaveLength(0)
      broken = null
      const mended = studyScheme(project, schemeOf(project).id, fresh)
      expect(mended.totals).toEqual(whole.totals)
      expect(mended.findings.map((f) => f.key)).toEqual(whole.findings.map((f) => f.key))
    }
  })
})

describe('a project file', () => {
  it('is written of a project that cannot be studied', async () => {
    const project = withMass(projectWith([0, 3]), { box: [0, 0, 5, 5], height: 3 })
    const never = (): never => {
      throw new Error('studied')
    }
    for (const id of ['geotome', 'json']) {
      const content = await writeFormat(formatNamed(id), project, never, '')
      const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content
      expect(readProjectFile(bytes)).toEqual(project)
    }
    await expect(writeFormat(formatNamed('obj'), project, never, '')).rejects.toThrow('studied')
  })
})
