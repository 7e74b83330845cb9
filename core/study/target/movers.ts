import type { Edit } from '../../edits'
import { changeRecipe, outlineTitles, pullFace } from '../../form'
import { addRuns, levelHeights, storeysOf } from '../../levels'
import { isRaise, kindOfMove, moveTitle, SHAPES, withMove, type Fielded, type Move, type RaiseMove } from '../../moves'
import {
  bearingIn,
  inOrder,
  keptDirection,
  numbersOf,
  refuse,
  tidy,
  type Dial,
  type Id,
  type Mass,
  type Num,
  type Numbers,
  type Project,
  type Quantity,
  type Scheme,
} from '../../project'
import { faceLabel, TOLERANCE } from '../../solid'
import { batch, singles } from '../../edits'
import { setDial } from '../trials'
import type { Mover } from './mover'
import { siteMovers } from './site-movers'

/** All numbers of a scheme that may be moved: dials, storeys, numbers and sides of masses, heights of storeys, setbacks of the site. */
export function moversOf(project: Project, scheme: Scheme): Mover[] {
  return [
    ...inOrder(scheme.dials).map((d) => dialMover(project, scheme, d)),
    ...inOrder(scheme.masses).flatMap((m) => massMovers(project, scheme, m)),
    ...storeyHeights(project, scheme),
    ...siteMovers(project, scheme),
  ]
}

/** The mover of that key, or of that name ("Bar, width", "dial:bay", "storeys:Bar"). Errors: 'unknown-id' with those that there are. */
export function moverNamed(project: Project, scheme: Scheme, wanted: string): Mover {
  const all = moversOf(project, scheme)
  const plain = (text: string) =>
    text
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, ' ')
      .trim()
  const low = plain(wanted.replace(/^(number|face):/, ''))
  return (
    all.find((m) => m.key === wanted) ??
    all.find((m) => plain(m.label) === low) ??
    refuse(
      'unknown-id',
      `There is nothing called "${wanted}" to move.`,
      all.length
        ? `Choose one of ${all
            .slice(0, 14)
            .map((m) => m.label)
            .join('; ')}${all.length > 14 ? ' and more' : ''}.`
        : 'Draw a mass or add a dial first.',
    )
  )
}

function dialMover(project: Project, scheme: Scheme, dial: Dial): Mover {
  const now = numbersOf(project, scheme).value(dial.value, dial.quantity)
  const wide = Math.max(10, Math.abs(now) * 4)
  const whole = dial.quantity === 'number' && dial.step !== null && Number.isInteger(dial.step) && Number.isInteger(now)
  return {
    key: `dial:${dial.id}`,
    label: `dial ${dial.name}`,
    quantity: dial.quantity,
    whole,
    now,
    from: dial.least ?? (dial.quantity === 'number' ? Math.min(now, whole ? 1 : 0) : Math.min(0.01, now)),
    to: dial.most ?? now + wide,
    edit: (_, s, value) => setDial(s, dial.id, value),
  }
}

function massMovers(project: Project, scheme: Scheme, mass: Mass): Mover[] {
  const numbers = numbersOf(project, scheme)
  const raise = mass.recipe.find((m): m is RaiseMove => isRaise(m) && m.on)
  return [
    ...(raise ? [storeysMover(project, scheme, mass, raise)] : []),
    ...mass.recipe
      .filter((m) => m.on)
      .flatMap((move) =>
        numbersIn(move).flatMap(({ path, label, num, quantity, isDirection }): Mover[] => {
          // What a formula gives is moved by the dials in it.
          if (typeof num !== 'number') return []
          const turn = numbers.angle(mass.place.turn)
          const kept = numbers.value(num, quantity)
          const now = isDirection ? bearingIn(kept, project.directions, turn) : kept
          const keep = (value: number) =>
            isDirection ? (keptDirection(value, project.directions, turn) as number) : tidy(value)
          return [
            {
              key: `number:${mass.id}/${move.id}/${path.join('.')}`,
              label: `${mass.name}, ${label}`,
              quantity,
              whole: false,
              now,
              from: isDirection ? 0 : now < 0 ? now * 4 - 10 : quantity === 'angle' ? -180 : 0.001,
              to: isDirection ? 360 : quantity === 'angle' ? 180 : Math.abs(now) * 4 + 20,
              edit: (_, s, value) =>
                changeRecipe(s, massIn(s, mass), (recipe) =>
                  withMove(recipe, move, putAt(move as unknown as Fielded, path, keep(value)) as Partial<Move>),
                ),
            },
          ]
        }),
      ),
    ...sidesOf(mass, numbers).map(({ face, label }): Mover => ({
      key: `face:${mass.id}/${face}`,
      label: `${mass.name}, ${label} moved out`,
      quantity: 'length',
      whole: false,
      now: 0,
      from: -50,
      to: 100,
      edit: (p, s, value, mint) =>
        Math.abs(value) < TOLERANCE.rounding
          ? changeRecipe(s, massIn(s, mass), (r) => r)
          : pullFace(p, s, mint, mass.id, face, tidy(value)),
    })),
  ]
}

const massIn = (scheme: Scheme, { id, name }: Mass): Mass =>
  scheme.masses[id] ?? refuse('unknown-id', `"${name}" is not there any more.`, 'Choose something else to move.')

interface NumberAt {
  path: string[]
  label: string
  num: Num
  quantity: Quantity
  isDirection?: boolean
}

/** The numbers of a move that a person gives: sizes of its outline, and what its fields ask for. */
function numbersIn(move: Move): NumberAt[] {
  if (move.move === 'outline') {
    const kind = SHAPES.find((k) => k.kind === move.shape.kind)
    const own = (kind?.numbers(move.shape as never) ?? []) as [Num, Quantity][]
    return Object.entries(move.shape).flatMap(([key, num]) => {
      const quantity = own.find(([n]) => n === num)?.[1]
      return quantity && typeof num === 'number' ? [{ path: ['shape', key], label: wordsOf(key), num, quantity }] : []
    })
  }
  if (isRaise(move))
    return move.upTo ? [] : [{ path: ['height'], label: 'height', num: move.height, quantity: 'length' }]
  const what = moveTitle(move)
  const asked = Object.entries(kindOfMove(move).fields).flatMap(([key, field]): NumberAt[] => {
    const value = (move as unknown as Fielded)[key]
    const quantity = field.is === 'number' ? field.quantity : field.is === 'height' ? 'length' : null
    const tied = field.is === 'height' && (move as unknown as Fielded)[field.level]
    return quantity && typeof value === 'number' && !tied
      ? [
          {
            path: [key],
            label: `${what}: ${field.label}`,
            num: value,
            quantity,
            isDirection: field.is === 'number' && field.direction !== undefined,
          },
        ]
      : []
  })
  return [...asked, ...numbersBesideFields(move, what)]
}

/** The numbers that a move has in choices of its own, beside its fields: a taper's scale, or its angle. */
function numbersBesideFields(move: Move, what: string): NumberAt[] {
  const kind = kindOfMove(move)
  const known = kind.numbers(move as never)
  return Object.entries(move).flatMap(([key, choice]: [string, unknown]): NumberAt[] => {
    if (key in kind.fields || key === 'span' || typeof choice !== 'object' || choice === null || !('kind' in choice))
      return []
    return Object.entries(choice).flatMap(([of, num]: [string, unknown]): NumberAt[] => {
      const quantity = known.find(([n]) => n === num)?.[1]
      return quantity && typeof num === 'number'
        ? [{ path: [key, of], label: `${what}: ${wordsOf(of)}`, num, quantity }]
        : []
    })
  })
}

const wordsOf = (key: string) => key.replace(/[A-Z]/g, (c) => ` ${c.toLowerCase()}`)

/** The field of a move at a path's first key, with the number at its end changed. */
function putAt(thing: Fielded, [key = '', ...rest]: string[], value: number): Fielded {
  return { [key]: rest.length ? { ...(thing[key] as Fielded), ...putAt(thing[key] as Fielded, rest, value) } : value }
}

/** The sides of an outline by the names that their faces have. */
function sidesOf(mass: Mass, numbers: Numbers): { face: string; label: string }[] {
  const outline = mass.recipe.find((m) => m.move === 'outline' && m.on)
  const raise = mass.recipe.find((m) => isRaise(m) && m.on)
  if (outline?.move !== 'outline' || !raise) return []
  const { shape } = outline
  const edges =
    shape.kind === 'rectangle'
      ? ['south', 'east', 'north', 'west']
      : shape.kind === 'polygon'
        ? shape.corners.filter((c) => c.bulge === 0).map((c) => c.id)
        : []
  const titles = outlineTitles(mass.recipe, numbers, numbers.angle(mass.place.turn))
  return edges.map((edge) => {
    const face = `${raise.id}/${edge}`
    return { face, label: faceLabel(face, titles) }
  })
}

/** The storeys that a mass has, by what it is raised to; more storeys than there are levels get levels like the topmost. */
function storeysMover(project: Project, scheme: Scheme, mass: Mass, raise: RaiseMove): Mover {
  const above = storeysAbove(project, scheme, mass)
  const numbers = numbersOf(project, scheme)
  const base = baseOf(project, scheme, mass)
  const top = raise.upTo
    ? numbers.height(raise.upTo.level) + numbers.length(raise.upTo.above)
    : base + numbers.length(raise.height)
  return {
    key: `storeys:${mass.id}`,
    label: `storeys ${mass.name}`,
    quantity: 'number',
    whole: true,
    now: Math.max(1, above.filter((l) => l.height < top - TOLERANCE.point).length),
    from: 1,
    to: 60,
    edit: (p, s, value, mint) => setStoreys(p, s, massIn(s, mass), raise, Math.round(value), mint),
  }
}

const baseOf = (project: Project, scheme: Scheme, { base }: Mass): number => {
  const numbers = numbersOf(project, scheme)
  return numbers.height(base.level) + numbers.length(base.above)
}

const storeysAbove = (project: Project, scheme: Scheme, mass: Mass) => {
  const base = baseOf(project, scheme, mass)
  return storeysOf(levelHeights(project, scheme)).filter((l) => l.height > base - TOLERANCE.touch)
}

/** Raises a mass to have so many storeys. Errors: 'size' where a storey's height is not known. */
function setStoreys(
  project: Project,
  scheme: Scheme,
  mass: Mass,
  raise: RaiseMove,
  count: number,
  mint: () => Id,
): Edit {
  const above = storeysAbove(project, scheme, mass)
  const [last, before] = [above.at(-1), above.at(-2)]
  if (!last) return refuse('size', `No storey lies above the foot of "${mass.name}".`, 'Add a level first.')
  const base = baseOf(project, scheme, mass)
  const numbers = numbersOf(project, scheme)
  const high = before ? tidy(last.height - before.height) : raise.upTo ? 3 : tidy(numbers.length(raise.height))
  const wanted = count + (raise.upTo ? 1 : 0)
  const missing = wanted - above.length
  const added =
    missing > 0
      ? addRuns(
          project,
          scheme,
          mint,
          { on: last.id, runs: [{ count: missing, each: high }], pattern: 'Storey {n}', first: above.length },
          'carried',
        )
      : null
  const ids = [
    ...above.map((l) => l.id),
    ...(added ? singles(added).flatMap((e) => (e.edit === 'level.add' ? [e.thing.id] : [])) : []),
  ]
  const topHeight = above[count]?.height ?? last.height + high * (count - above.length + 1)
  const set = raise.upTo ? { upTo: { level: ids[count] ?? last.id, above: 0 } } : { height: tidy(topHeight - base) }
  return batch([
    ...(added ? singles(added) : []),
    ...singles(changeRecipe(scheme, mass, (r) => withMove(r, raise, set))),
  ])
}

/** How high storeys are: stacked levels by what they stand above. */
const storeyHeights = (project: Project, scheme: Scheme): Mover[] =>
  levelHeights(project, scheme).flatMap(({ id, name }): Mover[] => {
    const tie = scheme.levels[id]?.tie
    if (tie?.kind !== 'stacked' || typeof tie.above !== 'number') return []
    const { above, on } = tie
    return [
      {
        key: `height:${id}`,
        label: `height of ${name} above ${scheme.levels[on]?.name ?? ''}`,
        quantity: 'length',
        whole: false,
        now: above,
        from: above < 0 ? -20 : 0.5,
        to: above < 0 ? -0.5 : 20,
        edit: (_, s, value) => ({
          edit: 'level.change',
          scheme: s.id,
          id,
          set: { tie: { kind: 'stacked', on, above: tidy(value) } },
        }),
      },
    ]
  })
