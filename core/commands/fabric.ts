import * as v from 'valibot'
import {
  addParts,
  attach,
  bringInLine,
  exchange,
  howOf,
  keepAsIs,
  letGo,
  partsFrom,
  placesFor,
  propose,
  removeParts,
  usualChoices,
} from '../fabric'
import { refuse } from '../project'
import type { Study } from '../study'
import { command } from './kind'
import { massNamed, named, NamedSchema, partNamed } from './named'

const Several = v.pipe(v.array(NamedSchema), v.minLength(1))
const studied = (s: Study, names: string[]) => {
  const ids = new Set(names.map((n) => partNamed(s, n).id))
  return s.parts.filter((p) => ids.has(p.id))
}

export const FABRIC_COMMANDS = [
  command({
    name: 'building.make',
    say: 'makes the parts that the faces of all masses, or of some, offer, with the usual choices',
    args: v.strictObject({ masses: v.optional(Several) }),
    run: ({ project, context, ...s }, { masses }, mint) => {
      const choices = usualChoices(project)
      const ids = masses?.map((m) => massNamed({ project, context, ...s }, m).id)
      return addParts(context, partsFrom(context, mint, propose(context, ids, howOf(choices)).candidates, choices))
    },
  }),
  command({
    name: 'part.align',
    say: 'brings drifted parts, or some of them, in line with their faces',
    args: v.strictObject({ parts: v.optional(Several) }),
    run: (s, { parts }) => bringInLine(s.context, parts ? studied(s, parts) : s.parts),
  }),
  command({
    name: 'part.keep',
    say: 'keeps drifted parts as they are',
    args: v.strictObject({ parts: Several }),
    run: (s, { parts }) => keepAsIs(s.context, studied(s, parts)),
  }),
  command({
    name: 'part.let-go',
    say: 'lets parts go: they stay where they are, whatever becomes of the form',
    args: v.strictObject({ parts: Several }),
    run: (s, { parts }) =>
      letGo(
        s.context,
        studied(s, parts).map((p) => p.id),
      ),
  }),
  command({
    name: 'part.attach',
    say: 'attaches a part to the likeliest face, or to one of a mass',
    args: v.strictObject({ part: NamedSchema, mass: v.optional(NamedSchema) }),
    run: (s, { part, mass }) => {
      const own = partNamed(s, part)
      const wanted = mass ? massNamed(s, mass).id : null
      const place = placesFor(s.context, own).find((p) => wanted === null || p.mass === wanted)
      return place
        ? attach(s.context, own, place)
        : refuse('geometry', `"${own.name}" fits no face there.`, 'Name another mass, or make the part anew.')
    },
  }),
  command({
    name: 'part.exchange',
    say: 'gives a part, all of its kind on its storey, or all of its kind another build-up',
    args: v.strictObject({
      part: NamedSchema,
      buildUp: NamedSchema,
      reach: v.optional(v.picklist(['one', 'storey', 'all']), 'one'),
    }),
    run: (s, { part, buildUp, reach }) =>
      exchange(s.context, partNamed(s, part), named('build-up', Object.values(s.project.buildUps), buildUp), reach)
        .edit,
  }),
  command({
    name: 'part.remove',
    say: 'removes parts',
    args: v.strictObject({ parts: Several }),
    run: (s, { parts }) =>
      removeParts(
        s.context,
        studied(s, parts).map((p) => p.id),
      ),
  }),
]
