import { inOrder, quantityOf, type BriefLine, type BriefOf } from '../../project'
import { TOLERANCE } from '../../solid'
import type { Study } from '../types'
import { topOf } from '../special'
import { entriesOf } from './entries'

/** What a study tells its figures by. */
export type Figured = Pick<Study, 'project' | 'context' | 'floors' | 'parts' | 'wings' | 'totals' | 'forms' | 'scheme'>

/** The value of a figure, SI units (a count: a whole number); null where it is not known. */
export function figureOf(study: Figured, of: BriefOf): number | null {
  if (of.kind === 'figure') return wholeFigure(study, of.figure)
  const area = useArea(study, of.use, of.measure)
  if (of.kind === 'use' || area === null) return area
  const size = study.context.numbers.value(of.size, 'area')
  // What lacks a hair of one more is one more.
  return Math.floor(area / size + TOLERANCE.area / size)
}

function wholeFigure({ totals, forms, scheme }: Figured, figure: Extract<BriefOf, { kind: 'figure' }>['figure']) {
  switch (figure) {
    case 'height':
      return topOf({ forms, scheme })
    default:
      return totals[figure]
  }
}

function useArea(study: Figured, use: string, measure: 'gross' | 'net'): number | null {
  if (measure === 'gross') return study.floors.reduce((sum, f) => sum + (f.uses[use] ?? 0), 0)
  return entriesOf(study).reduce<number | null>(
    (sum, e) => (e.use !== use ? sum : sum === null || e.net === null ? null : sum + e.net),
    0,
  )
}

/** How a line of the brief stands. */
export type BriefState = 'met' | 'short' | 'over' | 'unknown'

/** One line of the brief against a scheme; SI units. */
export interface BriefFigure {
  line: BriefLine
  target: number
  /** what still meets it; null: no end */
  least: number | null
  most: number | null
  now: number | null
  state: BriefState
  /** how far it is off what meets it; below zero where it is short */
  by: number
}

/** The brief of a project against what a study found, in the order of its lines. */
export const briefOf = (study: Figured): BriefFigure[] =>
  inOrder(study.project.brief).map((line) => {
    const target = study.context.numbers.value(line.target, quantityOf(line.of))
    const off = target * line.tolerance
    const least = line.bound === 'most' ? null : target - off
    const most = line.bound === 'least' ? null : target + off
    const now = figureOf(study, line.of)
    const slack = line.of.kind === 'figure' && line.of.figure === 'height' ? TOLERANCE.height : TOLERANCE.area
    const by =
      now === null
        ? 0
        : least !== null && now < least - slack
          ? now - least
          : most !== null && now > most + slack
            ? now - most
            : 0
    return {
      line,
      target,
      least,
      most,
      now,
      by,
      state: now === null ? 'unknown' : by < 0 ? 'short' : by > 0 ? 'over' : 'met',
    }
  })
