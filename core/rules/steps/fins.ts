import { length, profileLine, times } from '../../moves'
import { cornerFrame, sideFrame, type Frame } from '../../repeats'
import { planOfOutlines, sideLength, type Plan, type PlanCorner, type Vec2 } from '../../solid'
import { tidy, TOLERANCE, type Id, type Num } from '../../values'
import { newCell, type Cell } from '../cell'
import { hostOf } from './bands'
import type { StepBase, StepKind } from './kind'
import { whole } from './whole'

export interface FinsStep extends StepBase {
  step: 'fins'
  mass: Id
  at: 'corners' | 'evenly' | 'spaced'
  count: Num
  /** m from one to the next, at most */ apart: Num
  /** what each is drawn with, kept by name: x along the side, y out from it; null: a rectangle */ profile?: Id | null
  /** m along the side, and out from it */ wide: Num
  deep: Num
}

const isPlain = (s: FinsStep): boolean => !s.profile

/**
 * Begins with fins on a mass: at its corners, or along its sides, over its full height. Each follows the two ends of
 * its edge; where the mass is
 * twisted, storey by storey. Keys: the side, the number along it, and the storey where there is more than one.
 */
export const fins: StepKind<FinsStep> = {
  step: 'fins',
  called: 'fins',
  about: 'on a mass, at its corners or along its sides',
  fields: {
    mass: { is: 'mass', label: 'of' },
    at: {
      is: 'choice',
      label: 'at',
      options: [
        { value: 'corners', label: 'its corners' },
        { value: 'evenly', label: 'so many along each side' },
        { value: 'spaced', label: 'spaces along each side' },
      ],
    },
    count: times('along each side', { from: 1, to: 500, when: (s) => s.at === 'evenly' }),
    apart: length('apart', { from: TOLERANCE.least, when: (s) => s.at === 'spaced' }),
    profile: { is: 'profile', label: 'profile', otherwise: 'a rectangle', absent: null },
    wide: length('wide', { from: TOLERANCE.least, when: isPlain }),
    deep: length('deep', { from: TOLERANCE.least, when: isPlain }),
  },
  says: (s) =>
    [
      `begin with fins on {mass} at {at}${{ corners: '', evenly: ': {count}', spaced: ' of {apart}' }[s.at]}`,
      isPlain(s) ? '{profile} {wide} wide and {deep} deep' : 'of the profile {profile}',
    ].join(', '),
  starts: () => ({ mass: '', profile: null, at: 'corners', count: 3, apart: 3, wide: 0.32, deep: 0.28 }),
  begins: (s, { numbers, world, room, note }) => {
    const host = hostOf(world, s.mass)
    if (host.more)
      note(
        `Fins stand on the outline of "${host.name}", and not on what is cut from it or joined to it.`,
        'Leave those out that hang in the air, or draw them by hand.',
      )
    const [wide, deep] = [numbers.length(s.wide), numbers.length(s.deep)]
    const section: Plan = s.profile ? planOfOutlines([profileLine(s.profile, numbers)]) : [boxAt(wide, deep)]
    const stops = host.twisted
      ? [
          host.base,
          ...world.storeys.map((l) => l.height).filter((z) => z > host.base + 0.01 && z < host.top - 0.01),
          host.top,
        ]
      : [host.base, host.top]
    const placesAt = (plan: Plan): Place[] =>
      places(
        plan,
        s,
        (num) => numbers.length(num),
        (num) => whole(numbers, num, 'A number of fins'),
      )
    return stops.slice(1).flatMap((top, k): Cell[] => {
      const foot = stops[k] as number
      const [low, high] = [placesAt(host.plan(foot)), placesAt(host.plan(top))]
      room(low.length * (stops.length - 1))
      return low.flatMap((a): Cell[] => {
        // Where a side gets shorter it may have fewer of them higher up.
        const b = high.find((h) => h.key === a.key) ?? a
        const [dx, dy] = [b.at[0] - a.at[0], b.at[1] - a.at[1]]
        const out = Math.hypot(dx, dy)
        const frame = { x: a.at[0], y: a.at[1], turn: a.turn }
        const cell = newCell(
          section,
          { projecting: 'apart', key: stops.length > 2 ? `${a.key}-${k + 1}` : a.key, at: [1, 1], by: s.id },
          frame,
        )
        const raise = { id: `${s.id}-r`, move: 'raise' as const, on: true, height: tidy(top - foot), upTo: null }
        const towards = (Math.atan2(dy, dx) * 180) / Math.PI - a.turn
        const by = tidy((Math.atan2(out, top - foot) * 180) / Math.PI)
        const lean = { id: `${s.id}-l`, move: 'lean' as const, on: true, by, towards: tidy(towards) }
        return [{ ...cell, up: tidy(foot - world.base), moves: out > TOLERANCE.least ? [raise, lean] : [raise] }]
      })
    })
  },
}

/** The outline of a fin in its frame, m: its back on the side. */
const boxAt = (wide: number, deep: number): PlanCorner[] =>
  (
    [
      ['south', -wide / 2, 0],
      ['east', wide / 2, 0],
      ['north', wide / 2, deep],
      ['west', -wide / 2, deep],
    ] as const
  ).map(([id, x, y]) => ({ id, at: [x, y], bulge: 0 }))

interface Place {
  key: string
  at: Vec2
  /** degrees: where its own east runs to; its north looks out */ turn: number
}

function places(plan: Plan, s: FinsStep, metres: (num: Num) => number, count: (num: Num) => number): Place[] {
  const [line = []] = plan
  return line.flatMap((corner, i): Place[] => {
    const key = corner.id.replace(/[^0-9a-zA-Z]/g, '-')
    const placed = ({ x, y, turn }: Frame, named: string): Place => ({ key: named, at: [x, y], turn: turn + 180 })
    if (s.at === 'corners') return [placed(cornerFrame(line, i), key)]
    const long = sideLength(line, i)
    const many =
      s.at === 'evenly' ? count(s.count) : Math.max(1, Math.ceil(long / metres(s.apart) - TOLERANCE.rounding) - 1)
    return Array.from({ length: many }, (_, k) => placed(sideFrame(line, i, (k + 1) / (many + 1)), `${key}-${k + 1}`))
  })
}
