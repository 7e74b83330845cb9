import fc from 'fast-check'
import type { Edit } from '../edits'
import type { Project } from '../project'
import { converted, minter, projectWith, withMass } from './make'
import { STEPS } from './work-steps'

/** A project with basement and storeys, two masses and the whole building made of them. */
export const busyProject = (): Project => {
  let project = projectWith([-3, 0, 3, 6])
  project = withMass(project, { name: 'Bar', box: [0, 0, 20, 10], height: 9, level: 'L1' })
  project = withMass(project, {
    name: 'Wing',
    points: [
      [20, 0],
      [28, 0],
      [28, 12],
      [20, 10],
    ],
    height: 6,
    level: 'L1',
    use: 'studios',
  })
  return converted(project)
}

/** Dice for a person's work: each row decides one step. */
export const WORK = fc.array(fc.array(fc.nat(9999), { minLength: 12, maxLength: 12 }), { minLength: 1, maxLength: 14 })

/** The steps that the dice decide, one for each call; null where the step does not apply. May refuse, as any command. */
export function workOf(rows: number[][]): (project: Project) => Edit | null {
  const mint = minter('new')
  let row = 0
  return (project) => {
    const dice = rows[row++] ?? []
    let k = 0
    const pick = (n: number) => (dice[k++ % dice.length] ?? 0) % n
    return STEPS[pick(STEPS.length)]?.(project, pick, mint) ?? null
  }
}
