import * as v from 'valibot'
import { bringOver, readBrief } from '../groundwork'
import { inOrder, refuse } from '../project'
import { command } from './kind'
import { levelNamed, massNamed, named, NamedSchema, useNamed } from './named'

const ListSchema = v.pipe(v.array(NamedSchema), v.maxLength(500))

/** What is done about areas: the brief, uses by storeys, what masses give, what is brought over from another scheme. */
export const AREA_COMMANDS = [
  command({
    name: 'brief.read',
    say: 'Reads lines of the brief from a table: a name and a target in each row, if wanted tolerance, bound, size, measure.',
    args: v.strictObject({ text: v.pipe(v.string(), v.minLength(1), v.maxLength(200000)) }),
    run: ({ project }, { text }, mint) => readBrief(project, text, mint),
  }),
  command({
    name: 'brief.remove',
    say: 'Removes a line of the brief.',
    args: v.strictObject({ line: NamedSchema }),
    run: ({ project }, { line }) => ({
      edit: 'brief-line.remove',
      id: named('line of the brief', Object.values(project.brief), line).id,
    }),
  }),
  command({
    name: 'mass.gives',
    say: 'Lets a mass give floor, a void (floor is taken off on each level that it passes), or a core (gross floor, none of the net).',
    args: v.strictObject({ mass: NamedSchema, gives: v.picklist(['floor', 'void', 'core']) }),
    run: (study, { mass, gives }) => ({
      edit: 'mass.change',
      scheme: study.scheme.id,
      id: massNamed(study, mass).id,
      set: { gives: gives === 'floor' ? null : gives },
    }),
  }),
  command({
    name: 'mass.use-from-to',
    say: 'Gives the storeys of a mass from one level up to another a use of their own.',
    args: v.strictObject({ mass: NamedSchema, use: NamedSchema, from: NamedSchema, to: NamedSchema }),
    run: (study, { mass, use, from, to }, mint) => {
      const found = massNamed(study, mass)
      const storeys = {
        id: mint(),
        use: useNamed(study, use).id,
        from: levelNamed(study, from).id,
        to: levelNamed(study, to).id,
      }
      return {
        edit: 'mass.change',
        scheme: study.scheme.id,
        id: found.id,
        set: { storeyUses: [...(found.storeyUses ?? []), storeys] },
      }
    },
  }),
  command({
    name: 'scheme.bring',
    say: 'Brings masses, levels, and if wanted the parts of the masses over from another scheme.',
    args: v.strictObject({
      from: NamedSchema,
      masses: v.optional(ListSchema, []),
      levels: v.optional(ListSchema, []),
      parts: v.optional(v.boolean(), false),
    }),
    run: ({ project, scheme }, { from, masses, levels, parts }) => {
      const other = named('scheme', inOrder(project.schemes), from)
      const own = project.schemes[scheme.id] ?? refuse('unknown-id', 'That scheme is not there.', 'Choose another one.')
      return bringOver(project, other, own, {
        masses: masses.map((m) => named('mass', Object.values(other.masses), m).id),
        levels: levels.map((l) => named('level', Object.values(other.levels), l).id),
        parts,
      })
    },
  }),
]
