import * as v from 'valibot'
import {
  addByLine,
  addRuns,
  insertLevel,
  levelOf,
  moveLevel,
  readLevelLine,
  readRuns,
  removeLevel,
  setHeightPart,
  setStoreyHeight,
} from '../levels'
import { command } from './kind'
import { LengthSchema, levelNamed, metresOf, NamedSchema, numOf } from './named'

const Above = v.optional(v.picklist(['carried', 'held']), 'carried')

export const LEVEL_COMMANDS = [
  command({
    name: 'level.line',
    say: 'adds levels by a line: "2.85 First", "-3.3 Cellar", "@36 Ridge", "3 x 3.15", "mark @38 permitted"',
    args: v.strictObject({ line: v.string(), on: v.optional(NamedSchema) }),
    run: (s, { line, on }, mint) =>
      addByLine(s.project, s.scheme, mint, readLevelLine(line, s.project, s.scheme), on ? levelNamed(s, on).id : null)
        .edit,
  }),
  command({
    name: 'storeys.add',
    say: 'adds storeys on a level: runs as "0.6, 5.1, 38 x 3.25", named by a pattern counted from a number',
    args: v.strictObject({
      on: NamedSchema,
      runs: v.string(),
      pattern: v.optional(v.string(), 'Storey {n}'),
      first: v.optional(v.pipe(v.number(), v.integer()), 1),
      above: Above,
    }),
    run: (s, { on, runs, pattern, first, above }, mint) => {
      const read = readRuns(runs, (text) => numOf(s, text))
      return addRuns(s.project, s.scheme, mint, { on: levelNamed(s, on).id, runs: read, pattern, first }, above)
    },
  }),
  command({
    name: 'level.insert',
    say: 'puts a storey in over a level; those above that are named alike can be renumbered',
    args: v.strictObject({
      on: NamedSchema,
      above: LengthSchema,
      name: v.optional(NamedSchema, 'Storey'),
      kind: v.optional(v.picklist(['storey', 'mark']), 'storey'),
      carry: Above,
      renumber: v.optional(v.boolean(), false),
    }),
    run: (s, { on, above, name, kind, carry, renumber }, mint) =>
      insertLevel(
        s.project,
        s.scheme,
        mint,
        { on: levelNamed(s, on).id, above: numOf(s, above), kind, name },
        carry,
        renumber,
      ),
  }),
  command({
    name: 'level.move',
    say: 'moves a level to a height above the datum; those above go along or are held',
    args: v.strictObject({ level: NamedSchema, height: LengthSchema, above: Above }),
    run: (s, { level, height, above }) =>
      moveLevel(s.project, s.scheme, levelNamed(s, level).id, metresOf(s, height), above),
  }),
  command({
    name: 'level.remove',
    say: 'removes a level; what hung on it is tied anew at its height',
    args: v.strictObject({ level: NamedSchema }),
    run: (s, { level }) => removeLevel(s.project, s.scheme, levelNamed(s, level).id),
  }),
  command({
    name: 'level.rename',
    say: 'gives a level another name',
    args: v.strictObject({ level: NamedSchema, name: NamedSchema }),
    run: (s, { level, name }) => ({
      edit: 'level.change',
      scheme: s.scheme.id,
      id: levelOf(s.scheme, levelNamed(s, level).id).id,
      set: { name },
    }),
  }),
  command({
    name: 'storey.height',
    say: 'gives the storey between two levels a height; the lower or the upper one stays',
    args: v.strictObject({
      lower: NamedSchema,
      upper: NamedSchema,
      height: LengthSchema,
      keep: v.optional(v.picklist(['lower', 'upper']), 'lower'),
      above: Above,
    }),
    run: (s, { lower, upper, height, keep, above }) =>
      setStoreyHeight(
        s.project,
        s.scheme,
        levelNamed(s, lower).id,
        levelNamed(s, upper).id,
        metresOf(s, height),
        keep,
        above,
      ),
  }),
  command({
    name: 'storey.part',
    say: 'sets the storey, clear height, slab or floor of a level; the clear height or the storey gives way',
    args: v.strictObject({
      level: NamedSchema,
      field: v.picklist(['storey', 'clear', 'slab', 'floor']),
      value: LengthSchema,
      givesWay: v.optional(v.picklist(['clear', 'storey']), 'storey'),
    }),
    run: (s, { level, field, value, givesWay }) =>
      setHeightPart(s.project, s.scheme, levelNamed(s, level).id, field, numOf(s, value), {
        gives: givesWay,
        above: 'carried',
      }),
  }),
]
