import { briefOf, sayFigure, showFigure } from '../areas'
import { finding } from '../finding'
import type { Check } from '../types'

/** A line of the brief that the scheme does not meet, or that cannot be told. */
export const briefMissed: Check = {
  kind: 'brief missed',
  why: 'The brief is what the scheme is measured by; all schemes share it.',
  run: (study) =>
    Object.keys(study.project.brief).length === 0
      ? []
      : briefOf(study).flatMap(({ line, now, by, state, least, most }) => {
          if (state === 'met') return []
          const { project } = study
          const value = (v: number) => showFigure(project, line.of, v)
          if (now === null)
            return [
              finding(
                'brief missed',
                line.id,
                `${line.name}: ${sayFigure(project, line.of)} is not known`,
                line.of.kind === 'figure'
                  ? 'Give the site an outline or an area.'
                  : 'Say how thick outer walls are taken to be, or let walls stand.',
              ),
            ]
          const wanted = state === 'short' ? `at least ${value(least ?? 0)}` : `at most ${value(most ?? 0)}`
          return [
            finding(
              'brief missed',
              line.id,
              `${line.name} is ${value(Math.abs(by))} ${state === 'short' ? 'short' : 'over'}: ${value(now)} of ${wanted}`,
              'Change the scheme, let a number be found that meets it, or change the brief.',
              { area: line.of.kind === 'use' ? Math.abs(by) : null },
            ),
          ]
        }),
}
