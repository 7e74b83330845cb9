import { length, times } from '../../moves'
import { cornersArea, gapOf, shorterTurn, sideLength, type PlanCorner, type Vec2 } from '../../solid'
import { refuse, TOLERANCE, type Id, type Num } from '../../values'
import { whole, type Frame, type Place, type WayKind } from './kind'

export interface SidesWay {
  way: 'sides'
  /** the mass whose sides they stand at */ host: Id
  at: 'corners' | 'middles' | 'spaced' | 'evenly'
  /** m from one to the next, along each side */ apart: Num
  /** how many along each side */ count: Num
  /** m that the first and the last of a side keep from its ends */ ends: Num
}

/**
 * At the sides of another mass, as it stands: at its corners, in the middles of its sides, or along them. The original
 * stands at the first of these
 * places; each other one stands to its place as that to its own. Keys: the side, and the number along it.
 */
export const sides: WayKind<SidesWay> = {
  way: 'sides',
  called: 'at the sides of another mass',
  fields: {
    host: { is: 'mass', label: 'of' },
    at: {
      is: 'choice',
      label: 'at',
      options: [
        { value: 'corners', label: 'its corners' },
        { value: 'middles', label: 'the middles of its sides' },
        { value: 'evenly', label: 'so many along each side' },
        { value: 'spaced', label: 'spaces along each side' },
      ],
    },
    count: times('along each side', { from: 1, to: 500, when: (w) => w.at === 'evenly' }),
    apart: length('apart', { from: TOLERANCE.least, when: (w) => w.at === 'spaced' }),
    ends: length('from its ends', { from: 0, when: (w) => w.at === 'evenly' || w.at === 'spaced' }),
  },
  starts: ({ wide, others }) => ({
    host:
      others[0] ??
      refuse('unknown-id', 'There is no other mass at whose sides it could stand.', 'Draw another mass first.'),
    at: 'corners',
    apart: Math.max(1, Math.ceil(wide * 2)),
    count: 3,
    ends: 0,
  }),
  reads: (w) => [w.host],
  places: (w, numbers, planAt) => {
    const plan =
      planAt(w.host) ??
      refuse('unknown-id', 'The mass whose sides it stands at is gone, or has no outline.', 'Choose another mass.')
    const [outer] = plan
    if (!outer) return []
    const ends = numbers.length(w.ends)
    const frames = outer.flatMap((corner, i): { key: string; frame: Frame }[] => {
      const id = corner.id.replace(/[^0-9a-zA-Z]/g, '-')
      if (w.at === 'corners') return [{ key: id, frame: cornerFrame(outer, i) }]
      const long = sideLength(outer, i)
      if (w.at === 'middles') return [{ key: id, frame: sideFrame(outer, i, 0.5) }]
      const room = long - 2 * ends
      if (room < -TOLERANCE.least) return []
      const many =
        w.at === 'evenly'
          ? whole(numbers, w.count)
          : Math.floor(room / numbers.length(w.apart) + TOLERANCE.rounding) + 1
      const apart = w.at === 'evenly' ? (many > 1 ? room / (many - 1) : 0) : numbers.length(w.apart)
      // What is left at the ends of a side is the same at both.
      const first = ends + (room - apart * (many - 1)) / 2
      return Array.from({ length: many }, (_, k) => ({
        key: `${id}-${k + 1}`,
        frame: sideFrame(outer, i, long > 0 ? (first + apart * k) / long : 0),
      }))
    })
    const from = frames[0]?.frame
    return from ? frames.map(({ key, frame }, nth): Place => ({ key, nth, step: { from, to: frame } })) : []
  },
  ring: (w, numbers, planAt) => {
    const plan = planAt(w.host)
    return plan && (w.at === 'corners' || w.at === 'middles') ? (plan[0]?.length ?? null) : null
  },
}

const degrees = (radians: number) => (radians * 180) / Math.PI
const at = (line: readonly PlanCorner[], i: number): Vec2 => (line[(i + line.length) % line.length] as PlanCorner).at
const wayOf = (a: Vec2, b: Vec2): number => Math.atan2(b[1] - a[1], b[0] - a[0])

/** A frame at a share of a side, x along it: of an arc along its chord's turn there. */
export function sideFrame(line: readonly PlanCorner[], i: number, share: number): Frame {
  const [a, b] = [at(line, i), at(line, i + 1)]
  const quarter = Math.atan((line[i] as PlanCorner).bulge)
  if (quarter === 0)
    return { x: a[0] + (b[0] - a[0]) * share, y: a[1] + (b[1] - a[1]) * share, turn: degrees(wayOf(a, b)) }
  const [sweep, chord] = [4 * quarter, gapOf(a, b)]
  const r = chord / 2 / Math.sin(sweep / 2)
  const turn = wayOf(a, b) - sweep / 2
  const t = sweep * share
  return {
    x: a[0] + r * (Math.sin(turn + t) - Math.sin(turn)),
    y: a[1] - r * (Math.cos(turn + t) - Math.cos(turn)),
    turn: degrees(turn + t),
  }
}

/** A frame at a corner: x square to the line that halves it, so that what stands before it looks out along that line. */
export function cornerFrame(line: readonly PlanCorner[], i: number): Frame {
  const [x, y] = at(line, i)
  const sense = Math.sign(cornersArea(line)) || 1
  const [before, after] = [sideFrame(line, (i - 1 + line.length) % line.length, 1).turn, sideFrame(line, i, 0).turn]
  return { x, y, turn: before + shorterTurn(after - before) / 2 + (sense < 0 ? 180 : 0) }
}
