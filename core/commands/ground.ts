import * as v from 'valibot'
import {
  addReadLevels,
  addWing,
  duplicateScheme,
  massFromLoops,
  neighbourEdit,
  removePicture,
  removeWing,
  siteEdit,
  wingAround,
} from '../groundwork'
import { inOrder, TOLERANCE } from '../project'
import { placePoint, type Vec2 } from '../solid'
import { tracedPlan, type Study } from '../study'
import { command } from './kind'
import { LengthSchema, levelNamed, massNamed, metresOf, named, NamedSchema, numOf } from './named'

const Points = v.pipe(v.array(v.tuple([v.number(), v.number()])), v.minLength(3))

export const GROUND_COMMANDS = [
  command({
    name: 'site.draw',
    say: 'gives the project a site: its corners, in m; setbacks and slopes stay where the number of corners stays',
    args: v.strictObject({ corners: Points }),
    run: (s, { corners }, mint) => siteEdit(s.project, mint, corners),
  }),
  command({
    name: 'site.remove',
    say: 'takes the site away; what was drawn on it stays',
    args: v.strictObject({}),
    run: () => ({ edit: 'project.change', set: { site: null } }),
  }),
  command({
    name: 'neighbour.draw',
    say: 'draws a building around the site: its corners, in m, and its height; it stands on the ground, or at a base',
    args: v.strictObject({
      corners: Points,
      height: LengthSchema,
      name: v.optional(NamedSchema),
      base: v.optional(LengthSchema),
    }),
    run: (s, { corners, height, name, base }, mint) =>
      neighbourEdit(s.project, mint(), corners, numOf(s, height), name, base === undefined ? null : numOf(s, base)),
  }),
  command({
    name: 'neighbour.remove',
    say: 'removes a neighbour',
    args: v.strictObject({ neighbour: NamedSchema }),
    run: (s, { neighbour }) => ({
      edit: 'neighbour.remove',
      id: named('neighbour', Object.values(s.project.neighbours), neighbour).id,
    }),
  }),
  command({
    name: 'picture.remove',
    say: 'removes a picture with its measures and with what was traced on it',
    args: v.strictObject({ picture: NamedSchema }),
    run: (s, { picture }) => removePicture(s.project, named('picture', Object.values(s.project.pictures), picture).id),
  }),
  command({
    name: 'trace.become',
    say: 'makes a mass, the site or a neighbour of what was traced',
    args: v.strictObject({
      trace: NamedSchema,
      as: v.picklist(['mass', 'site', 'neighbour']),
      height: v.optional(LengthSchema, 9),
      level: v.optional(NamedSchema),
    }),
    run: (s, { trace, as, height, level }, mint) => {
      const traced = named('trace', Object.values(s.project.traces), trace)
      const loops = tracedPlan(s, traced.id)
      const outer = loops[0]?.points ?? []
      if (as === 'site') return siteEdit(s.project, mint, outer)
      if (as === 'neighbour') return neighbourEdit(s.project, mint(), outer, numOf(s, height), traced.name)
      const on = level ? levelNamed(s, level) : s.levels.find((l) => l.height > -TOLERANCE.point)
      return massFromLoops(s.project, s.scheme, mint, loops, {
        name: traced.name,
        level: on?.id ?? '',
        height: metresOf(s, height),
      }).edit
    },
  }),
  command({
    name: 'levels.read',
    say: 'adds levels at heights above the datum, each stacked on the next one below it, or fixed',
    args: v.strictObject({
      levels: v.pipe(
        v.array(
          v.strictObject({
            height: LengthSchema,
            name: NamedSchema,
            kind: v.optional(v.picklist(['storey', 'mark']), 'storey'),
          }),
        ),
        v.minLength(1),
      ),
      stacked: v.optional(v.boolean(), true),
    }),
    run: (s, { levels, stacked }, mint) =>
      addReadLevels(
        s.project,
        s.scheme,
        mint,
        levels.map((l) => ({ ...l, height: metresOf(s, l.height) })),
        stacked,
      ),
  }),
  command({
    name: 'wing.add',
    say: 'adds a wing, with an outline in plan or about masses, or with none',
    args: v.strictObject({ name: NamedSchema, outline: v.optional(Points), about: v.optional(v.array(NamedSchema)) }),
    run: (s, { name, outline, about }, mint) => {
      const id = mint()
      const added = addWing(s.scheme, id, name)
      if (added.edit !== 'wing.add') return added
      const around = about
        ? wingAround(
            s.scheme,
            id,
            about.flatMap((m) => planCorners(s, massNamed(s, m).id)),
          )
        : null
      const drawn = outline ?? (around?.edit === 'wing.change' ? around.set.outline : null) ?? null
      return { ...added, thing: { ...added.thing, outline: drawn } }
    },
  }),
  command({
    name: 'wing.remove',
    say: 'removes a wing; its masses belong to where they stand',
    args: v.strictObject({ wing: NamedSchema }),
    run: (s, { wing }) => removeWing(s.scheme, named('wing', Object.values(s.scheme.wings), wing).id),
  }),
  command({
    name: 'scheme.duplicate',
    say: 'copies the scheme, under a name of its own or the next letter',
    args: v.strictObject({ name: v.optional(NamedSchema) }),
    run: (s, { name }, mint) => duplicateScheme(s.project, s.scheme, mint(), name),
  }),
  command({
    name: 'scheme.remove',
    say: 'removes a scheme; one must stay',
    args: v.strictObject({ scheme: NamedSchema }),
    run: (s, { scheme }) => ({ edit: 'scheme.remove', id: named('scheme', inOrder(s.project.schemes), scheme).id }),
  }),
]

/** The corners of a mass's plan, in world coordinates, m. */
function planCorners({ forms }: Study, id: string): Vec2[] {
  const form = forms.find((f) => f.id === id)
  return form ? form.body.plan().flatMap((loop) => loop.map((p) => placePoint(p, form.at))) : []
}
