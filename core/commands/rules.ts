import * as v from 'valibot'
import { changeRule, detachRepeated, freezeRule, growAgain, newRepeat, newRule } from '../form'
import { inOrder, refuse } from '../project'
import { WAYS, WaySchema } from '../repeats'
import { READY_RULES, type Rule } from '../rules'
import type { Study } from '../study'
import { command } from './kind'
import { levelNamed, massNamed, NamedSchema, useNamed } from './named'

function ruleNamed(s: Study, name: string): Rule {
  const all = inOrder(s.scheme.rules)
  return (
    all.find((r) => r.id === name || r.name.toLowerCase() === name.toLowerCase()) ??
    refuse(
      'unknown-id',
      `There is no rule "${name}".`,
      all.length ? `There are ${all.map((r) => r.name).join(', ')}.` : 'Make one with rule.new.',
    )
  )
}

export const RULE_COMMANDS = [
  command({
    name: 'rule.new',
    say: `makes a rule to grow masses from: ${READY_RULES.map((r) => r.ready).join(', ')}, or with a plan only; its dials come with it`,
    args: v.strictObject({
      ready: v.optional(v.picklist(READY_RULES.map((r) => r.ready))),
      level: NamedSchema,
      use: v.optional(NamedSchema),
      at: v.optional(v.tuple([v.number(), v.number()])),
    }),
    run: (s, { ready, level, use, at }, mint) =>
      newRule(
        s.project,
        s.scheme,
        mint,
        {
          use: (use ? useNamed(s, use) : inOrder(s.project.uses)[0])?.id ?? '',
          level: levelNamed(s, level).id,
          at: at ?? [0, 0],
        },
        ready ?? null,
      ),
  }),
  command({
    name: 'rule.freeze',
    say: 'makes what a rule has grown masses of their own; the rule stays beside',
    args: v.strictObject({ rule: NamedSchema }),
    run: (s, { rule }) => freezeRule(s.scheme, s.growth, ruleNamed(s, rule).id),
  }),
  command({
    name: 'rule.grow',
    say: 'lets a frozen rule grow again; what was given to its masses since is kept',
    args: v.strictObject({ rule: NamedSchema }),
    run: (s, { rule }) => growAgain(s.scheme, ruleNamed(s, rule).id),
  }),
  command({
    name: 'rule.turn',
    say: 'puts a rule to another place (m), turned (degrees)',
    args: v.strictObject({ rule: NamedSchema, at: v.tuple([v.number(), v.number()]), turn: v.optional(v.number()) }),
    run: (s, { rule, at, turn }) =>
      changeRule(s.scheme, ruleNamed(s, rule).id, { place: { x: at[0], y: at[1], turn: turn ?? 0 } }),
  }),
  command({
    name: 'repeat.new',
    say: `repeats masses: ${WAYS.map((w) => w.way).join(', ')}, with the numbers of that way; every how many-th; up the storeys`,
    args: v.strictObject({
      of: v.pipe(v.array(NamedSchema), v.minLength(1)),
      way: WaySchema,
      every: v.optional(v.number(), 1),
      up: v.optional(v.boolean(), false),
      shift: v.optional(v.number(), 0),
    }),
    run: (s, { of, way, every, up, shift }, mint) => {
      const ids = of.map((m) => massNamed(s, m).id)
      const added = newRepeat(s.project, s.scheme, mint, ids, way.way, up)
      return {
        ...added,
        thing: { ...added.thing, way, every, up: up ? { storeys: null, high: 'drawn' as const, shift } : null },
      }
    },
  }),
  command({
    name: 'repeat.detach',
    say: 'makes one of a repeat, by its key, or all of them, masses of their own',
    args: v.strictObject({ repeat: NamedSchema, key: v.optional(v.string()) }),
    run: (s, { repeat, key }, mint) => {
      const found = inOrder(s.scheme.repeats).find(
        (r) => r.id === repeat || r.name.toLowerCase() === repeat.toLowerCase(),
      )
      return found
        ? detachRepeated(s.scheme, s.growth, mint, found.id, key ?? null)
        : refuse('unknown-id', `There is no repeat "${repeat}".`, 'Make one with repeat.new.')
    },
  }),
]
