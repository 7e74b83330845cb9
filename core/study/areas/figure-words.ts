import { inOrder, quantityOf, refuse, showQuantity, showVolume, type BriefOf, type Project } from '../../project'

const FIGURES: Record<string, string> = {
  area: 'total area',
  ratio: 'the floor area ratio',
  coverage: 'site coverage',
  height: 'the height',
  volume: 'the volume',
  footprint: 'the footprint',
}

/** What a figure is called. */
export function sayFigure(project: Project, of: BriefOf): string {
  if (of.kind === 'figure') return FIGURES[of.figure] ?? of.figure
  const name = project.uses[of.use]?.name ?? 'a use'
  return of.kind === 'count' ? `the number of ${name}` : of.measure === 'net' ? `${name}, net` : name
}

/** A figure as it is shown, with its unit. */
export function showFigure(project: Project, of: BriefOf, value: number): string {
  if (of.kind === 'figure' && of.figure === 'ratio') return value.toFixed(3)
  if (of.kind === 'figure' && of.figure === 'coverage') return `${(value * 100).toFixed(1)} %`
  if (of.kind === 'figure' && of.figure === 'volume') return showVolume(value, project)
  return showQuantity(value, quantityOf(of), project)
}

/** A figure by its name: a use ("homes", "homes net"), a line of the brief, or area, ratio, coverage, height, volume, footprint. */
export function figureNamed(project: Project, wanted: string): BriefOf {
  const low = wanted.trim().toLowerCase()
  const line = Object.values(project.brief).find((l) => l.name.toLowerCase() === low)
  const [, name = low, measure] = /^(.*?)(?:[ ,]+(net|gross))?$/.exec(low) ?? []
  const use = Object.values(project.uses).find((u) => u.name.toLowerCase() === name)
  if (use) return { kind: 'use', use: use.id, measure: measure === 'net' ? 'net' : 'gross' }
  if (line) return line.of
  const figure = (['area', 'ratio', 'coverage', 'height', 'volume', 'footprint'] as const).find((f) => f === low)
  if (figure) return { kind: 'figure', figure }
  if (low === 'total') return { kind: 'figure', figure: 'area' }
  return refuse(
    'unknown-id',
    `There is no figure "${wanted}".`,
    `Choose one of ${[...inOrder(project.uses).map((u) => u.name), 'area', 'ratio', 'coverage', 'height', 'volume', 'footprint'].join(', ')}.`,
  )
}
