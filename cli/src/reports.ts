import type { Proposal } from '@geotome/core/fabric'
import { sayLimit, type Study } from '@geotome/core/study'

const round = (value: number) => Math.round(value * 1e6) / 1e6

/** The parts with their figures (m, m2, m3) and what the preview would offer. */
export function fabricReport(study: Study, proposal: Proposal) {
  const levelName = (id: string | undefined) => study.levels.find((l) => l.id === id)?.name ?? null
  return {
    scheme: study.scheme.name,
    parts: study.parts.map((p) => ({
      id: p.id,
      name: p.part.name,
      role: p.role,
      mass: p.part.host.mass,
      face: p.part.host.face,
      level: levelName(p.part.base?.level),
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
      mass: c.part.host.mass,
      face: c.part.host.face,
      level: levelName(c.part.base?.level),
      area: round(c.area),
    })),
    leftOut: proposal.leftOut.map((l) => ({ mass: l.mass, what: l.what, why: l.why, area: round(l.area) })),
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
export function groundReport({ ground, forms, totals }: Study) {
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
        passed: fit?.limits.filter((l) => l.over > 1e-4).map(sayLimit) ?? [],
        clear: fit?.clear ?? [],
        aboveGround: ground.feet.get(f.id)?.above ?? null,
      }
    }),
    neighbours: ground.neighbours.map(({ name, base, top }) => ({ name, base, top })),
  }
}
