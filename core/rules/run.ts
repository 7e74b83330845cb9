import { checkFields, type Fielded, type Fields } from '../moves'
import { Refusal, refuse, type Id, type Num, type Numbers, type Quantity } from '../values'
import type { Cell } from './cell'
import { givenIn, stepNumbers, type Rule } from './schema'
import type { Acting, RuleWorld } from './steps/kind'
import { stepKind, type Step } from './steps/list'

/** A number that a step has given to one cell, for its formulas. */
export interface Given {
  name: string
  value: number
  quantity: Quantity
}

/** The numbers in reach of a rule; with what its steps have given to one cell, by their ids. */
export type NumbersWith = (given: ReadonlyMap<Id, Given> | null) => Numbers

/** What a step made: all cells behind it, and how many it acted on. */
export interface Traced {
  step: Id
  cells: readonly Cell[]
  acted: number
}

export interface Remark {
  step: Id | null
  say: string
  remedy: string
}

/** A rule that has run: its cells, what each step made of them, and what there is to say. */
export interface RuleRun {
  cells: readonly Cell[]
  trace: Traced[]
  remarks: Remark[]
  /** the step that could not be made: what comes behind it has not run */
  failed: (Remark & { code: Refusal['code'] }) | null
}

/** Runs a rule's steps, one behind the other. It needs no kernel. A step that cannot be made ends it, with its sentence in `failed`. */
export function runRule(rule: Rule, world: RuleWorld, numbersWith: NumbersWith): RuleRun {
  const run: RuleRun = { cells: [], trace: [], remarks: [], failed: null }
  const plain = numbersWith(null)
  const names = new Map(givenIn(rule).map((g) => [g.id, g]))
  let cells: readonly Cell[] = []
  for (const [i, step] of rule.steps.entries()) {
    if (!step.on) continue
    try {
      const { next, acted } = stepped(cells, step, i, { rule, world, plain, numbersWith, names, remarks: run.remarks })
      cells = next
      run.trace.push({ step: step.id, cells, acted })
    } catch (e) {
      if (!(e instanceof Refusal)) throw e
      run.failed = { code: e.code, step: step.id, say: `Step ${i + 1} of "${rule.name}": ${e.say}`, remedy: e.remedy }
      return { ...run, cells: [] }
    }
  }
  const out = new Set(rule.out)
  return { ...run, cells: cells.filter((c) => !out.has(c.key)) }
}

interface At {
  rule: Rule
  world: RuleWorld
  plain: Numbers
  numbersWith: NumbersWith
  names: ReadonlyMap<Id, { name: string; quantity: Quantity }>
  remarks: Remark[]
}

function stepped(cells: readonly Cell[], step: Step, i: number, at: At): { next: readonly Cell[]; acted: number } {
  const { rule, world, plain, numbersWith, names } = at
  const kind = stepKind(step)
  const refs = refsOf(stepNumbers(step).map(([num]) => num)).filter((id) => names.has(id))
  for (const id of refs)
    if (rule.steps.findIndex((s) => s.id === id) >= i)
      refuse('formula', `"${names.get(id)?.name ?? id}" is given by a step below.`, 'Put that step above this one.')
  const fields = kind.fields as Fields<never>
  const checked = (numbers: Numbers): Numbers => {
    checkFields(fields, step as unknown as Fielded, `the step`, { ...numbers, base: 0, heights: NO_LEVELS })
    return numbers
  }
  const numbersOf = (cell: Cell): Numbers => {
    if (refs.length === 0) return plain
    const given = refs.map((id): [Id, Given] => {
      const value = cell.given[id]
      const { name, quantity } = names.get(id) as { name: string; quantity: Quantity }
      if (value === undefined)
        return refuse(
          'formula',
          `"${name}" is not given to "${cell.key}".`,
          'Let the step that gives it act on all, or this one on fewer.',
        )
      return [id, { name, value, quantity }]
    })
    return checked(numbersWith(new Map(given)))
  }
  const room = (many: number, beside: number) => {
    if (many + beside > rule.most)
      refuse(
        'size',
        `It would make ${(many + beside).toLocaleString('en')} of them; the rule may make ${rule.most.toLocaleString('en')}.`,
        rule.most < 20000 && many + beside <= 20000
          ? 'Type a smaller number, or let the rule make more of them first.'
          : 'Type a smaller number: 20,000 are the most that a rule makes.',
      )
  }
  const doing = (numbers: Numbers, nth: number, many: number, beside: number): Acting => ({
    numbers,
    nth,
    many,
    world,
    room: (n) => room(n, beside),
    note: (say, remedy) => {
      if (!at.remarks.some((r) => r.step === step.id && r.say === say)) at.remarks.push({ step: step.id, say, remedy })
    },
  })
  if (refs.length === 0) checked(plain)
  if (kind.begins) {
    const known = new Set(cells.map((c) => c.key))
    const begun = kind.begins(step, doing(plain, 0, 0, cells.length)).map((c) => ({ ...c, key: freeKey(c.key, known) }))
    return { next: [...cells, ...begun], acted: begun.length }
  }
  const source = step.of === null ? null : rule.steps.slice(0, i).find((s) => s.id === step.of && s.on)
  if (step.of !== null && !source)
    refuse(
      'unknown-id',
      'The step that chose what it acts on is gone, or switched off.',
      'Choose another one, or let it act on all.',
    )
  const acts = (c: Cell) => step.of === null || c.chosen.includes(step.of) !== step.others
  const those = cells.filter(acts)
  const rest = cells.length - those.length
  if (kind.all) {
    const made = kind.all(those, step, (cell, nth) => doing(numbersOf(cell), nth, those.length, rest))
    const next = kind.dropsOthers?.(step) ? [...made] : inTheirPlace(cells, those, made)
    return { next: withKeys(cells, next), acted: those.length }
  }
  let made = 0
  let nth = 0
  const keys = new Set(cells.map((c) => c.key))
  const next = cells.flatMap((cell): Cell[] => {
    if (!acts(cell)) return [cell]
    const these = kind.each?.(cell, step, doing(numbersOf(cell), nth++, those.length, rest + made)) ?? [cell]
    made += these.length
    room(made, rest)
    return keyed(cell.key, these, keys)
  })
  return { next, acted: those.length }
}

/** The cells with those acted on replaced: each in its place while there are as many, else all where the first of them was. */
function inTheirPlace(cells: readonly Cell[], those: readonly Cell[], made: readonly Cell[]): Cell[] {
  const acted = new Set(those)
  if (made.length === those.length) {
    let i = 0
    return cells.map((c) => (acted.has(c) ? (made[i++] as Cell) : c))
  }
  return cells.flatMap((c) => (acted.has(c) ? (c === those[0] ? made : []) : [c]))
}

/**
 * What a step made of one cell, each with a key that no other cell has. Of those that it made one may keep the key of the cell that it was
 * made of; the keys of all other cells are theirs.
 */
function keyed(own: string, made: readonly Cell[], keys: Set<string>): Cell[] {
  let isFree = true
  return made.map((cell) => {
    if (cell.key === own && isFree) {
      isFree = false
      return cell
    }
    const key = freeKey(cell.key, keys)
    return key === cell.key ? cell : { ...cell, key }
  })
}

/** Cells with a key each: those that were there keep theirs. */
function withKeys(before: readonly Cell[], cells: readonly Cell[]): Cell[] {
  const were = new Set(before.map((c) => c.key))
  const keys = new Set(were)
  const taken = new Set<string>()
  return cells.map((cell) => {
    if (were.has(cell.key) && !taken.has(cell.key)) {
      taken.add(cell.key)
      return cell
    }
    const key = freeKey(cell.key, keys)
    return key === cell.key ? cell : { ...cell, key }
  })
}

/** A key that no other cell has. */
function freeKey(wish: string, known: Set<string>): string {
  let key = wish
  for (let n = 2; known.has(key); n++) key = wish === '1' ? String(n) : `${wish}-${n}`
  known.add(key)
  return key
}

const NO_LEVELS: ReadonlyMap<Id, number> = new Map()

const refsOf = (nums: readonly Num[]): Id[] =>
  nums.flatMap((num) =>
    typeof num === 'number' ? [] : [...num.formula.matchAll(/\{([0-9a-zA-Z-]+)\}/g)].map((m) => m[1] ?? ''),
  )
