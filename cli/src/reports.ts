import { bodyHeights, type PartStudy, type Proposal } from '@geotome/core/fabric'
import { TOLERANCE, type Part } from '@geotome/core/project'
import { areaOf } from '@geotome/core/solid'
import { sayLimit, type Study } from '@geotome/core/study'

const round = (value: number) => Math.round(value * 1e6) / 1e6

/** The parts with their figures (m, m2, m3; tilt in degrees from upright, above zero where it looks up) and what the preview would offer. */
export function fabricReport(study: Study, proposal: Proposal) {
  const levelName = (id: string | undefined) => study.levels.find((l) => l.id === id)?.name ?? null
  const massName = (id: string) => study.scheme.masses[id]?.name ?? ''
  return {
    scheme: study.scheme.name,
    parts: study.parts.map((p) => ({
      id: p.id,
      name: p.part.name,
      role: p.role,
      mass: massName(p.part.host.mass),
      massId: p.part.host.mass,
      face: p.part.host.face,
      level: levelName(p.part.base?.level),
      height: p.body ? round(heightOf(p.body)) : null,
      length: p.length === null ? null : round(p.length),
      tilt: round(tiltOfPart(p.part)),
      planArea: round(areaOf(p.plan)),
      buildUp: study.project.buildUps[p.part.buildUp]?.name ?? '',
      thickness: round(p.thickness),
      area: round(p.area),
      volume: round(p.volume),
      bond: p.bond.status,
      why: p.bond.why,
    })),
    offered: proposal.candidates.map((c) => ({
      name: c.part.name,
      role: c.role,
      mass: massName(c.part.host.mass),
      massId: c.part.host.mass,
      face: c.part.host.face,
      level: levelName(c.part.base?.level),
      area: round(c.area),
    })),
    leftOut: proposal.leftOut.map((l) => ({
      mass: massName(l.mass),
      massId: l.mass,
      what: l.what,
      why: l.why,
      area: round(l.area),
    })),
    remarks: proposal.remarks,
  }
}

export function findingsReport(study: Study) {
  return study.findings.map((f) => ({
    kind: f.kind,
    say: f.say,
    remedy: f.remedy,
    level: f.level,
    masses: f.masses,
    parts: f.parts,
    area: f.area === null ? null : round(f.area),
  }))
}

const heightOf = (body: NonNullable<PartStudy['body']>): number => {
  const { z0, z1 } = bodyHeights(body)
  return z1 - z0
}
/** degrees from upright that a part's face leans by: 90 lies and looks up, -90 down */
const tiltOfPart = ({ print, kind }: Part): number =>
  print.kind === 'face'
    ? (Math.asin(Math.min(1, Math.max(-1, print.normal[2]))) * 180) / Math.PI
    : kind === 'slab'
      ? 90
      : 0

/** Plain columns: text to the left, figures to the right. */
export function table(head: string[], rows: string[][]): string {
  const widths = head.map((h, i) => Math.max(h.length, ...rows.map((r) => r[i]?.length ?? 0)))
  const figure = (text: string) => /^-?[\d.,]+$/.test(text)
  const line = (cells: string[]) =>
    cells
      .map((c, i) =>
        figure(c) || (i > 0 && c === head[i] && rows.some((r) => figure(r[i] ?? '')))
          ? c.padStart(widths[i] ?? 0)
          : c.padEnd(widths[i] ?? 0),
      )
      .join('  ')
      .trimEnd()
  return [line(head), ...rows.map(line)].join('\n')
}

/** The site, what is left to build on, and how each mass stands in the envelope and over the ground; m, m2, m3. */
export function groundReport({ ground, forms, totals, project }: Study) {
  return {
    site: ground.site && { area: ground.site.area, perimeter: ground.site.perimeter, sides: ground.site.sides },
    buildable: ground.envelope?.area ?? null,
    coverage: totals.coverage,
    terrain: ground.tin
      ? { lowest: ground.tin.low, highest: ground.tin.high, points: ground.tin.points.length / 3 }
      : null,
    terrainMissing: ground.missing,
    masses: forms.map((f) => {
      const fit = ground.fits.get(f.id)
      return {
        name: f.name,
        over: fit?.over ?? null,
        passed: (fit?.limits ?? [])
          .filter((l) => l.over > TOLERANCE.touch)
          .map((l) => ({ ...l, over: round(l.over), say: sayLimit(l, project) })),
        limits: (fit?.limits ?? []).map((l) => ({ ...l, over: round(l.over) })),
        clear: fit?.clear ?? [],
        aboveGround: ground.feet.get(f.id)?.above ?? null,
      }
    }),
    neighbours: ground.neighbours.map(({ name, base, top }) => ({ name, base, top })),
  }
}
