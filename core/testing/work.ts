import fc from 'fast-check'
import { applyEdit, type Edit } from '../edits'
import type { Project } from '../project'
import { converted, minter, projectWith, withMass } from './make'
import { GROWN_STEPS } from './work-grown'
import type { Step } from './work-pick'
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

/** The same with something of each kind that grows: bands of a profile, a ready rule, a repeat. */
export const grownProject = (): Project => {
  const mint = minter('grown')
  const dice = [
    [9, 1, 2],
    [4, 1],
    [5, 0, 0],
    [3, 0, 0, 9, 9, 1],
    [0, 1, 0, 1],
  ]
  return dice.reduce((project, [step = 0, ...picks]) => {
    let k = 0
    const edit = GROWN_STEPS[step]?.(project, (n) => (picks[k++ % picks.length] ?? 0) % n, mint)
    return edit ? applyEdit(project, edit).project : project
  }, busyProject())
}

/** Dice for a person's work: each row decides one step. */
export const WORK = fc.array(fc.array(fc.nat(9999), { minLength: 12, maxLength: 12 }), { minLength: 1, maxLength: 14 })

/** The steps that the dice decide, one for each call; null where the step does not apply. May refuse, as any command. */
export function workOf(rows: number[][], steps: readonly Step[] = STEPS): (project: Project) => Edit | null {
  const mint = minter('new')
  let row = 0
  return (project) => {
    const dice = rows[row++] ?? []
    let k = 0
    const pick = (n: number) => (dice[k++ % dice.length] ?? 0) % n
    return steps[pick(steps.length)]?.(project, pick, mint) ?? null
  }
}
