import type { Edit } from '../edits'
import { parseWith, refuse, type Id } from '../project'
import type { Study } from '../study'
import { AREA_COMMANDS } from './areas'
import { FABRIC_COMMANDS } from './fabric'
import { GROUND_COMMANDS } from './ground'
import type { Command } from './kind'
import { LEVEL_COMMANDS } from './levels'
import { MASS_COMMANDS } from './masses'
import { RULE_COMMANDS } from './rules'

export type { Command } from './kind'

/** All that a person can do without a screen; a new command is an entry in the file of its room. */
export const COMMANDS: Command[] = [
  ...LEVEL_COMMANDS,
  ...MASS_COMMANDS,
  ...RULE_COMMANDS,
  ...FABRIC_COMMANDS,
  ...GROUND_COMMANDS,
  ...AREA_COMMANDS,
]

/**
 * The edit that a command makes of its arguments, which are outside data. Things are named by their names or ids. Errors: 'edit' with what is wrong,
 * 'unknown-id' with the names that there are, and those of what the command does.
 */
export function runCommand(study: Study, name: string, args: unknown, mint: () => Id): Edit {
  const found = COMMANDS.find((c) => c.name === name)
  if (!found) {
    const near = nearest(
      name,
      COMMANDS.map((c) => c.name),
    )
    return refuse(
      'edit',
      `There is no command "${name}".`,
      near ? `Was ${near} meant?` : `There are ${COMMANDS.map((c) => c.name).join(', ')}.`,
    )
  }
  if (typeof args === 'object' && args !== null) {
    checkKeys(found, Object.keys(args))
    checkNeeded(found, Object.keys(args))
  }
  return found.run(study, parseWith(found.args, args, 'edit', `The arguments of ${name} are malformed`) as never, mint)
}

/** Refuses keys that the command does not know, all at once, each with what it was meant to be. */
function checkKeys({ name, args }: Command, keys: string[]): void {
  const known = Object.keys(args.entries)
  const strange = keys.filter((k) => !known.includes(k))
  if (strange.length === 0) return
  const said = strange.map((k) => {
    const near = nearest(k, known)
    return near ? `"${k}" (was ${near} meant?)` : `"${k}"`
  })
  refuse('edit', `${name} does not know ${said.join(', ')}.`, `It takes ${known.join(', ')}.`)
}

/** Refuses arguments of which some are missing, and names all of them. */
function checkNeeded({ name, args, oneOf = [] }: Command, keys: string[]): void {
  const missing = Object.entries(args.entries).flatMap(([key, { type }]) =>
    type === 'optional' || keys.includes(key) ? [] : [key],
  )
  const shapes = oneOf.some((key) => keys.includes(key)) ? [] : [`one of ${oneOf.join(', ')}`]
  const all = [...missing, ...(oneOf.length ? shapes : [])]
  if (all.length)
    refuse('edit', `${name} needs ${all.join(', ')}.`, `Its arguments are ${Object.keys(args.entries).join(', ')}.`)
}

/** The word that is mistyped most likely; null where none is close. */
function nearest(word: string, words: string[]): string | null {
  const ranked = words
    .map((w) => ({ w, off: distance(word.toLowerCase(), w.toLowerCase()) }))
    .sort((a, b) => a.off - b.off)
  const best = ranked[0]
  return best && best.off <= Math.max(2, word.length / 3) ? best.w : null
}

/** How many letters must be put in, left out or changed (Levenshtein 1966). */
function distance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, i) => i)
  for (let i = 1; i <= a.length; i++) {
    const next = [i]
    for (let j = 1; j <= b.length; j++)
      next[j] = Math.min((row[j] ?? 0) + 1, (next[j - 1] ?? 0) + 1, (row[j - 1] ?? 0) + (a[i - 1] === b[j - 1] ? 0 : 1))
    row = next
  }
  return row[b.length] ?? 0
}
