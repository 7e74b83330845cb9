import { cellRecipe, dressedFaces, isRaised, type Cell, type Rule } from '../rules'
import {
  fingerprint,
  Memo,
  ruleRun,
  tidy,
  type Id,
  type Mass,
  type Num,
  type Numbers,
  type Project,
  type Scheme,
} from '../project'
import { placePoint } from '../solid'
import type { Grown, GrownFrom } from './grown-from'

/** The id of one of a rule's bodies: the same for the same key, whatever becomes of the others. */
export const ruledId = (rule: Id, key: string): Id => `g-${fingerprint(`${rule} ${key}`)}`

/** Behind all that is drawn. */
const BEHIND = 1e6

const memo = new Memo()

/** Adds the bodies of a rule to the masses of its scheme, unless they are frozen, and what there is to say of it. */
export function growRule(
  project: Project,
  scheme: Scheme,
  rule: Rule,
  numbers: Numbers,
  to: { masses: Record<Id, Mass>; from: Map<Id, GrownFrom>; remarks: Grown['remarks'] },
): void {
  if (rule.frozen) return
  const run = ruleRun(project, scheme, rule)
  const say = (say: string, remedy: string) => to.remarks.push({ by: 'rule', id: rule.id, say, remedy })
  for (const r of [...run.remarks, ...(run.failed ? [run.failed] : [])]) say(r.say, r.remedy)
  const raised = run.cells.filter(isRaised)
  const flat = run.cells.length - raised.length
  if (flat > 0)
    say(
      `"${rule.name}" raises ${raised.length ? `${flat} of its ${run.cells.length} outlines not` : 'none of its outlines'}.`,
      'Put a step behind the others that raises them.',
    )
  raised.forEach((cell, i) => {
    const mass = ruledMass(rule, cell, i, numbers)
    if (to.masses[mass.id]) {
      say(
        `"${rule.name}" makes two bodies of the key "${cell.key}", and only the first of them stands.`,
        'Undo the last change of the rule.',
      )
      return
    }
    to.masses[mass.id] = mass
    to.from.set(mass.id, { by: 'rule', id: rule.id, key: cell.key, mass: null })
  })
}

/** One of a rule's bodies as a mass, with what it has of its own. */
export function ruledMass(rule: Rule, cell: Cell, nth: number, numbers: Numbers): Mass {
  const own = rule.own[cell.key]
  const recipe = cellRecipe(cell, own)
  const frame = {
    x: numbers.length(rule.place.x),
    y: numbers.length(rule.place.y),
    z: 0,
    turn: numbers.angle(rule.place.turn),
  }
  const [x, y] = placePoint([cell.x, cell.y], frame)
  const lift = tidy(cell.up + (own?.up ?? 0))
  const above: Num = lift === 0 ? rule.base.above : tidy(numbers.length(rule.base.above) + lift)
  const place = { x: tidy(x), y: tidy(y), turn: tidy(frame.turn + cell.turn) }
  const order = BEHIND + rule.order * 20_000 + nth
  const faces = { ...dressedFaces(cell), ...own?.faces }
  const from = [
    ...Object.values(place),
    above,
    cell.use,
    cell.material,
    cell.projecting,
    order,
    own,
    rule.name,
    cell.label,
    rule.use,
    rule.base.level,
    JSON.stringify(faces),
  ]
  return memo.keep(recipe, `${rule.id} ${cell.key}`, from, () => ({
    id: ruledId(rule.id, cell.key),
    name: own?.name ?? `${rule.name} ${cell.label ?? cell.key}`,
    order,
    use: own?.use ?? cell.use ?? rule.use,
    base: { level: rule.base.level, above },
    place,
    takes: { kind: 'all-but', levels: [] },
    recipe,
    context: false,
    wing: null,
    group: null,
    ...(cell.projecting ? { projecting: cell.projecting } : {}),
    material: own?.material === undefined ? cell.material : own.material,
    faces,
  }))
}
