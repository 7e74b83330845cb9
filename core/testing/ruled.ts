import { changeRule, newRule, newStep } from '../form'
import { levelHeights } from '../levels'
import type { Project } from '../project'
import type { Rule, Step } from '../rules'
import { apply, minter, projectWith, schemeOf } from './make'

export const mint = minter('rule')
const heights = (n: number, each: number) => Array.from({ length: n }, (_, i) => i * each)

/** A ready rule on storeys, about a point; `before`: what is done to the project first. */
export function ruled(
  ready: string,
  storeys: number,
  each: number,
  at: [number, number] = [0, 0],
  before: (p: Project) => Project = (p) => p,
): Project {
  const plain = before(projectWith(heights(storeys, each), mint))
  const scheme = schemeOf(plain)
  const [level] = levelHeights(plain, scheme)
  return apply(
    plain,
    newRule(plain, scheme, mint, { use: Object.keys(plain.uses)[0] as string, level: level?.id ?? '', at }, ready),
  )
}
/** Its one rule. */
export const only = (project: Project): Rule => Object.values(schemeOf(project).rules)[0] as Rule
/** With a dial at a value. */
export function withDial(project: Project, name: string, value: number): Project {
  const dial = Object.values(schemeOf(project).dials).find((d) => d.name === name)
  return apply(project, { edit: 'dial.change', scheme: schemeOf(project).id, id: dial?.id ?? '', set: { value } })
}
/** Its first step of a kind. */
export const stepOf = (project: Project, step: Step['step']) => only(project).steps.find((s) => s.step === step) as Step
/** With its rule turned, and put somewhere (m). */
export const withTurn = (project: Project, turn: number, x = 0, y = 0) =>
  apply(project, changeRule(schemeOf(project), only(project).id, { place: { x, y, turn } }))

/** The cluster with nine strips on the front of each, in two materials. */
export function striped(count = 9, ends: 'any' | 'alike' = 'alike', storeys = 31, more: object = {}): Project {
  let project = ruled('cluster', storeys, 3.5)
  const materials = ['Ruled one', 'Ruled two'].map((name, i) => ({
    id: mint(),
    name,
    order: i,
    colour: '#aa5533',
    opacity: 1,
  }))
  for (const thing of materials) project = apply(project, { edit: 'material.add', thing })
  const steps = [...only(project).steps]
  const raise = steps.findIndex((s) => s.step === 'move' && s.move.move === 'raise')
  const at = 'rows' in more ? steps.length : raise
  const strips = newStep('strips', mint, {
    side: stepOf(project, 'side').id,
    count,
    materials: materials.map((m) => m.id),
    ends,
    ...more,
  })
  steps.splice(at, 0, strips)
  return apply(project, changeRule(schemeOf(project), only(project).id, { steps }))
}
