import { length, profileLine, setBack, times, type Move } from '../../moves'
import { planOfOutlines, type Plan, type PlanCorner } from '../../solid'
import { refuse, tidy, TOLERANCE, type Id, type Num } from '../../values'
import { namedInTurn, newCell, type Cell } from '../cell'
import type { HostMass, RuleWorld, StepBase, StepKind } from './kind'
import { whole } from './whole'

export interface BandsStep extends StepBase {
  step: 'bands'
  mass: Id
  /** what goes round, kept by name; null: a rectangle */ profile?: Id | null
  /** m that they stand out */ out: Num
  /** m */ high: Num
  /** m above each storey's floor */ above: Num
  /** null: as many as it has */ count: Num | null
}

/** The mass that a step reads, as it stands. Errors: 'unknown-id' where it is gone, or drawn otherwise. */
export function hostOf(world: RuleWorld, id: Id): HostMass {
  return (
    world.mass(id) ?? refuse('stale', 'The mass that it goes round is gone, or has no outline.', 'Choose another mass.')
  )
}

const isPlain = (s: BandsStep): boolean => !s.profile

/**
 * Begins with bands round a mass: one on each storey, along the edge that its floor has there, whatever it is twisted
 * or tapered. Keys: by level.
 */
export const bands: StepKind<BandsStep> = {
  step: 'bands',
  called: 'bands',
  about: 'round a mass, one on each storey',
  fields: {
    mass: { is: 'mass', label: 'of' },
    profile: { is: 'profile', label: 'profile', otherwise: 'a rectangle', absent: null },
    out: length('out', { from: TOLERANCE.least, when: isPlain }),
    high: length('high', { from: TOLERANCE.least, when: isPlain }),
    above: length('above the floor'),
    count: times('storeys', { otherwise: 'all', from: 1, to: 500 }),
  },
  says: (s) =>
    [
      'begin with bands round {mass} on {count} storeys',
      s.profile ? 'of the profile {profile}' : '{profile} {out} out and {high} high',
      '{above} above each floor',
    ].join(', '),
  starts: () => ({ mass: '', profile: null, out: 0.18, high: 0.35, above: 0, count: null }),
  begins: (s, { numbers, world, room, note }) => {
    const host = hostOf(world, s.mass)
    if (host.more)
      note(
        `Bands go along the outline of "${host.name}", and not along what is cut from it or joined to it.`,
        'Leave those out that hang in the air, or draw them by hand.',
      )
    const { out, high, profile } = {
      out: numbers.length(s.out),
      high: numbers.length(s.high),
      profile: s.profile ?? null,
    }
    const above = numbers.length(s.above)
    const all = world.storeys.filter(
      (l) => l.height > host.base - TOLERANCE.touch && l.height < host.top - TOLERANCE.touch,
    )
    const storeys = s.count === null ? all : all.slice(0, whole(numbers, s.count, 'A number of storeys'))
    room(storeys.length)
    return storeys.flatMap((level): Cell[] => {
      const plan = host.plan(level.height)
      const [outer] = plan
      if (!outer) return []
      const at = {
        projecting: 'apart' as const,
        label: level.name,
        key: level.id,
        at: [1, 1] as [number, number],
        by: s.id,
      }
      const raised = (cell: Cell, move: Move): Cell[] => [
        { ...cell, up: tidy(level.height + above - world.base), moves: [move] },
      ]
      if (profile !== null) {
        profileLine(profile, numbers)
        const section = { kind: 'rectangle' as const, width: out, depth: high }
        const id = `${s.id}-e`
        return raised(newCell(namedInTurn([outer]), at), {
          id,
          move: 'edging',
          on: true,
          profile,
          section,
          out: 0,
          up: 0,
        })
      }
      const [ring] = planOfOutlines(setBack([outer], () => -out, `"${host.name}"`))
      if (!ring) return []
      const both: Plan = namedInTurn([ring, backwards(outer)])
      return raised(newCell(both, at), { id: `${s.id}-r`, move: 'raise', on: true, height: high, upTo: null })
    })
  },
}

/** A closed line the other way round; each side keeps its name. */
export const backwards = (line: readonly PlanCorner[]): PlanCorner[] =>
  line
    .map((_, i): PlanCorner => {
      const before = line[(i - 1 + line.length) % line.length] as PlanCorner
      return { id: before.id, at: (line[i] as PlanCorner).at, bulge: -before.bulge }
    })
    .reverse()
