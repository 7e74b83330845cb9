import * as v from 'valibot'
import {
  ALIGN_BY,
  alignMasses,
  copyMasses,
  extentOf,
  mirrorMasses,
  spreadMasses,
  type Extent,
  changeRecipe,
  detach,
  joinMasses,
  keepRest,
  moveMasses,
  newMass,
  removeMass,
  setPitch,
  takeApart,
} from '../form'
import { RecipeSchema, withPlaced } from '../moves'
import { batch, singles } from '../edits'
import { inOrder, parseWith, refuse } from '../project'
import type { Vec2 } from '../solid'
import type { Study } from '../study'
import { command } from './kind'
import { LengthSchema, levelNamed, massNamed, metresOf, named, NamedSchema, numOf, useNamed } from './named'

const Point = v.tuple([v.number(), v.number()])
const Several = v.pipe(v.array(NamedSchema), v.minLength(1))

/** The extents of masses as they stand. */
const extentsOf = (s: Study, masses: string[]): Extent[] =>
  masses.map((m) => {
    const { id, name } = massNamed(s, m)
    const form = [...s.forms, ...s.around].find((f) => f.id === id)
    return form ? extentOf(form) : refuse('geometry', `"${name}" cannot be built.`, 'Mend its recipe first.')
  })

export const MASS_COMMANDS = [
  command({
    name: 'mass.draw',
    say: 'draws a mass: a rectangle [x, y, width, depth], a polygon of points, or a circle [x, y, radius], in m; raised by a height or up to a level',
    args: v.strictObject({
      name: NamedSchema,
      use: v.optional(NamedSchema),
      level: NamedSchema,
      height: LengthSchema,
      upTo: v.optional(NamedSchema),
      rectangle: v.optional(v.tuple([v.number(), v.number(), v.number(), v.number()])),
      polygon: v.optional(v.pipe(v.array(Point), v.minLength(3))),
      circle: v.optional(v.tuple([v.number(), v.number(), v.number()])),
    }),
    oneOf: ['rectangle', 'polygon', 'circle'],
    run: (s, { name, use, level, height, upTo, rectangle, polygon, circle }, mint) => {
      const [x = 0, y = 0, w = 0, d = 0] = rectangle ?? []
      const thing = newMass(s.scheme, mint, {
        name,
        use: (use ? useNamed(s, use) : inOrder(s.project.uses)[0])?.id ?? '',
        level: levelNamed(s, level).id,
        height: numOf(s, height),
        upTo: upTo ? { level: levelNamed(s, upTo).id, above: 0 } : null,
        shape: circle
          ? { kind: 'circle', centre: [circle[0], circle[1]], radius: circle[2] }
          : polygon
            ? { kind: 'polygon', points: polygon }
            : { kind: 'rectangle', from: [x, y], to: [x + w, y + d] },
      })
      return { edit: 'mass.add', scheme: s.scheme.id, thing }
    },
  }),
  command({
    name: 'mass.move',
    say: 'moves masses by x and y, and turns them, in degrees, about their own middles',
    args: v.strictObject({
      masses: Several,
      x: v.optional(LengthSchema, 0),
      y: v.optional(LengthSchema, 0),
      turn: v.optional(v.number(), 0),
    }),
    run: (s, { masses, x, y, turn }) => {
      const by: Vec2 = [metresOf(s, x), metresOf(s, y)]
      const ids = masses.map((m) => massNamed(s, m).id)
      if (!turn) return moveMasses(s.project, s.scheme, ids, by)
      const turned = extentsOf(s, masses).map(({ id, x0, y0, x1, y1 }) =>
        moveMasses(s.project, s.scheme, [id], by, turn, [(x0 + x1) / 2, (y0 + y1) / 2]),
      )
      return batch(turned.flatMap(singles))
    },
  }),
  command({
    name: 'mass.join',
    say: 'joins the second mass to the first, which keeps its name, use and storeys',
    args: v.strictObject({ first: NamedSchema, second: NamedSchema }),
    run: (s, { first, second }, mint) =>
      joinMasses(s.project, s.scheme, mint, massNamed(s, first).id, massNamed(s, second).id),
  }),
  command({
    name: 'mass.apart',
    say: 'takes a joined body out again, by its name',
    args: v.strictObject({ mass: NamedSchema, body: NamedSchema }),
    run: (s, { mass, body }, mint) => {
      const from = massNamed(s, mass)
      const joined = from.recipe.flatMap((m) => (m.move === 'join' ? [{ id: m.id, name: m.name }] : []))
      return takeApart(s.project, s.scheme, mint, from.id, named('joined body', joined, body).id)
    },
  }),
  command({
    name: 'mass.pitch',
    say: 'gives a mass a pitched top: angle, and direction of the ridge, in degrees',
    args: v.strictObject({ mass: NamedSchema, angle: v.number(), direction: v.optional(v.number(), 0) }),
    run: (s, { mass, angle, direction }, mint) => setPitch(s.scheme, massNamed(s, mass), mint, { angle, direction }),
  }),
  command({
    name: 'mass.shape',
    say: 'puts a move, as a project file has it but for its id and whether it is on, into the recipe of a mass: at the last place where it fits',
    args: v.strictObject({ mass: NamedSchema, move: v.looseObject({ move: v.string() }) }),
    run: (s, { mass, move }, mint) => {
      const to = massNamed(s, mass)
      const [made] = parseWith(RecipeSchema, [{ id: mint(), on: true, ...move }], 'edit', 'The move is malformed')
      if (!made) return refuse('geometry', 'That is no move.', 'Name one, as a project file has it.')
      const placed = withPlaced(to.recipe, made)
      return placed === null
        ? refuse(
            'geometry',
            `A ${made.move} fits nowhere in the recipe of "${to.name}".`,
            'Take another move off first.',
          )
        : changeRecipe(s.scheme, to, () => placed)
    },
  }),
  command({
    name: 'mass.keep-rest',
    say: 'keeps what the last cut of a mass throws away as a mass of its own',
    args: v.strictObject({ mass: NamedSchema }),
    run: (s, { mass }, mint) => {
      const of = massNamed(s, mass)
      const cut = of.recipe.findLast((m) => m.move === 'cut' && m.on)
      return cut
        ? keepRest(s.scheme, mint, of.id, cut.id)
        : refuse('geometry', `"${of.name}" is not cut.`, 'Give it a cut first.')
    },
  }),
  command({
    name: 'mass.align',
    say: `puts masses in line with the first, by their ${ALIGN_BY.join('; ')}`,
    args: v.strictObject({ masses: Several, by: v.picklist(ALIGN_BY) }),
    run: (s, { masses, by }) => alignMasses(s.project, s.scheme, extentsOf(s, masses), by),
  }),
  command({
    name: 'mass.spread',
    say: 'moves masses so that the gaps between them are equal, west to east or south to north; the outermost stay',
    args: v.strictObject({ masses: Several, along: v.picklist(['west to east', 'south to north']) }),
    run: (s, { masses, along }) => spreadMasses(s.project, s.scheme, extentsOf(s, masses), along),
  }),
  command({
    name: 'mass.copy',
    say: 'copies masses, set off by x and y, onto the levels that are named',
    args: v.strictObject({
      masses: Several,
      x: v.optional(LengthSchema, 0),
      y: v.optional(LengthSchema, 0),
      levels: v.optional(v.array(NamedSchema)),
    }),
    run: (s, { masses, x, y, levels }, mint) => {
      const by: [number, number] = [metresOf(s, x), metresOf(s, y)]
      const to = levels ? { by, levels: levels.map((l) => levelNamed(s, l).id) } : { by }
      return copyMasses(
        s.scheme,
        mint,
        masses.map((m) => massNamed(s, m).id),
        to,
        s.project,
      )
    },
  }),
  command({
    name: 'mass.mirror',
    say: 'mirrors masses in a line through x, y that runs to a direction, in degrees',
    args: v.strictObject({ masses: Several, x: v.number(), y: v.number(), direction: v.number() }),
    run: (s, { masses, x, y, direction }, mint) =>
      mirrorMasses(
        s.project,
        s.scheme,
        mint,
        masses.map((m) => massNamed(s, m).id),
        { at: [x, y], direction },
      ),
  }),
  command({
    name: 'mass.detach',
    say: 'detaches a mass from another one that a move of it reads',
    args: v.strictObject({ mass: NamedSchema, from: NamedSchema }),
    run: (s, { mass, from }) => {
      const [of, other] = [massNamed(s, mass), massNamed(s, from)]
      const move = of.recipe.find((m) => m.move === 'combine' && m.mass === other.id)
      return move
        ? detach(s.project, s.scheme, of.id, move.id)
        : refuse('geometry', `"${of.name}" reads nothing of "${other.name}".`, 'Look at its recipe.')
    },
  }),
  command({
    name: 'mass.remove',
    say: 'removes a mass, with the parts that stand on it or leaving them loose',
    args: v.strictObject({ mass: NamedSchema, withParts: v.optional(v.boolean(), true) }),
    run: (s, { mass, withParts }) => removeMass(s.scheme, massNamed(s, mass).id, withParts),
  }),
]
