import { applyEdit, type Edit } from '../edits'
import { addHole, changeRecipe, newMass, setPitch } from '../form'
import { addStoreys } from '../levels'
import { inOrder, refuse, tidy, type Id, type Project, type Scheme } from '../project'
import type { Vec2 } from '../solid'
import { siteEdit } from './site'

/** A made-up beginning of a project: levels, a site and a form, all to be changed. */
export interface Starter {
  id: string
  label: string
  say: string
  build(blank: Project, mint: () => Id): Project
}

/** Does one thing after the other to a project. */
function work(start: Project, ...steps: ((p: Project, s: Scheme) => Edit)[]): Project {
  return steps.reduce((p, step) => applyEdit(p, step(p, inOrder(p.schemes)[0] as Scheme)).project, start)
}
const ground = (s: Scheme): Id => Object.values(s.levels).find((l) => l.tie.kind === 'fixed')?.id ?? ''
const use = (p: Project, name: string): Id =>
  (Object.values(p.uses).find((u) => u.name === name) ?? inOrder(p.uses)[0])?.id ?? ''
const storeys = (mint: () => Id, count: number, each: number) => (p: Project, s: Scheme) =>
  addStoreys(p, s, mint, { on: ground(s), count, each, pattern: 'Storey {n}', first: 1 }, 'held')
const site = (mint: () => Id, width: number, depth: number) => (p: Project) =>
  siteEdit(p, mint, [
    [0, 0],
    [width, 0],
    [width, depth],
    [0, depth],
  ])
const box =
  (
    mint: () => Id,
    name: string,
    of: string,
    [x, y]: Vec2,
    [w, d]: Vec2,
    height: number,
    on: (s: Scheme) => Id = ground,
  ) =>
  (p: Project, s: Scheme): Edit => ({
    edit: 'mass.add',
    scheme: s.id,
    thing: newMass(s, mint, {
      name,
      use: use(p, of),
      level: on(s),
      height: tidy(height),
      shape: { kind: 'rectangle', from: [x, y], to: [x + w, y + d] },
    }),
  })
const levelNamed = (s: Scheme, name: string): Id => Object.values(s.levels).find((l) => l.name === name)?.id ?? ''
const massNamed = (s: Scheme, name: string) =>
  Object.values(s.masses).find((m) => m.name === name) ?? refuse('unknown-id', `There is no "${name}".`)

export const STARTERS: readonly Starter[] = [
  {
    id: 'court',
    label: 'Housing round a court',
    say: 'Five storeys of 3.15 m about a court, on a site of 62 by 54 m',
    build: (blank, mint) =>
      work(
        blank,
        site(mint, 62, 54),
        storeys(mint, 4, 3.15),
        box(mint, 'Court house', 'homes', [8, 7], [46, 40], 15.75),
        (p, s) => addHole(p, s, massNamed(s, 'Court house').id, { kind: 'rectangle', from: [21, 20], to: [41, 34] }),
      ),
  },
  {
    id: 'tower',
    label: 'Tower on a base',
    say: 'A tower of eighteen storeys that tapers, on a base of two, on a site of 48 by 44 m',
    build: (blank, mint) =>
      work(
        blank,
        site(mint, 48, 44),
        storeys(mint, 19, 3.4),
        box(mint, 'Base', 'market', [4, 4], [40, 36], 6.8),
        box(mint, 'Tower', 'studios', [13, 11], [22, 22], 61.2, (s) => levelNamed(s, 'Storey 2')),
        (_, s) =>
          changeRecipe(s, massNamed(s, 'Tower'), (recipe) => [
            ...recipe,
            { id: mint(), move: 'taper', on: true, by: { kind: 'scale', scale: 0.8 } },
          ]),
      ),
  },
  {
    id: 'sheds',
    label: 'Row of pitched sheds',
    say: 'Three long sheds side by side, each with a pitch of 35 degrees, on a site of 60 by 40 m',
    build: (blank, mint) =>
      work(
        blank,
        site(mint, 60, 40),
        ...[0, 1, 2].flatMap((n) => {
          const name = `Shed ${n + 1}`
          return [
            box(mint, name, n === 1 ? 'market' : 'studios', [6 + n * 17, 5], [13, 30], 5.4),
            (_: Project, s: Scheme) => setPitch(s, massNamed(s, name), mint, { angle: 35, direction: 90 }),
          ]
        }),
      ),
  },
]

/** Errors: 'unknown-id' with those that there are. */
export const starterNamed = (id: string): Starter =>
  STARTERS.find((s) => s.id === id) ??
  refuse('unknown-id', `There is no starter "${id}".`, `There are ${STARTERS.map((s) => s.id).join(', ')}.`)
