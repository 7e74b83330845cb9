import {
  calibrate,
  doubtOf,
  numbersOf,
  readTyped,
  Refusal,
  type Calibration,
  type Num,
  type Pair,
  type PairDoubt,
} from '@geotome/core/project'
import { gapOf } from '@geotome/core/solid'
import { labelled, type BenchAnswer, type BenchWorld, type Picking, type Task } from './kind'

export interface Calibrating extends Picking {
  /** what is typed for how far the two points are apart */
  length: string
  lies: Pair['lies']
  /** the next point picked is the pin */
  pinning: boolean
  /** the pair was asked about, and the person says that it lies as told */
  sure: boolean
}

/** Two points and how far they are apart give the picture's scale, and its tilt where they lie level or plumb. */
export const calibrateTask: Task<Calibrating> = {
  name: 'calibrate',
  label: 'Calibrate',
  begin: () => ({ points: [], length: '', lies: 'level', pinning: false, sure: false }),
  answer: (s, event, world) => {
    switch (event.kind) {
      case 'pick':
        return s.pinning
          ? pinned(s, event.at, world)
          : { state: { ...s, sure: false, points: s.points.length >= 2 ? [event.at] : [...s.points, event.at] } }
      case 'accept':
        return added(s, world)
      case 'change':
        return { state: { ...s, sure: false, ...event.set } }
      case 'key':
        return null
    }
  },
  hint: (s, { picture }) =>
    picture.locked
      ? 'The picture is locked: unlock it to calibrate it.'
      : s.pinning
        ? 'Click the point that is tied to the model'
        : s.points.length < 2
          ? `Click ${s.points.length === 0 ? 'one end' : 'the other end'} of a length that you know`
          : 'Type how far the two points are apart, Enter',
  lines: (_, { picture: { pairs, pin } }) => [
    ...pairs.map((pair) => ({ points: [pair.a, pair.b], closed: false, tone: 'faint' as const })),
    { points: [pin.px], closed: false, tone: 'kept' as const, label: 'pin' },
  ],
}

/** What is typed, read: null while nothing is, or what is wrong with it. */
export function typedLength(
  { length }: Calibrating,
  { project, scheme }: BenchWorld,
): { num: Num; value: number } | { fault: string } | null {
  if (!length.trim()) return null
  try {
    return readTyped(length, 'length', project, scheme)
  } catch (e) {
    if (e instanceof Refusal) return { fault: e.message }
    throw e
  }
}

/** What the picture's scale would be with the pair that is being made; null while it is none. */
export function wouldGive(s: Calibrating, world: BenchWorld): Calibration | null {
  const pair = pairOf(s, world, 'new')
  if (!pair) return null
  try {
    return calibrate({ pairs: [...world.picture.pairs, pair] }, numbersOf(world.project, null))
  } catch (e) {
    if (e instanceof Refusal) return null
    throw e
  }
}

function pairOf(s: Calibrating, world: BenchWorld, id: string): Pair | null {
  const typed = typedLength(s, world)
  const [a, b] = s.points
  return a && b && typed && !('fault' in typed) ? { id, a, b, length: typed.num, lies: s.lies } : null
}

/** Why the pair that is being made is asked about; null where it agrees with what is told of it, or the person is sure. */
export function pairDoubt(s: Calibrating, world: BenchWorld): PairDoubt | null {
  const pair = s.sure ? null : pairOf(s, world, 'new')
  return pair && doubtOf(world.picture.pairs, pair)
}

function added(s: Calibrating, world: BenchWorld): BenchAnswer<Calibrating> {
  const { picture: p, mint } = world
  const pair = pairOf(s, world, mint())
  if (!pair) return { state: s }
  if (gapOf(pair.a, pair.b) < 1)
    return { state: s, refused: 'The two points are less than a pixel apart. Pick two that lie farther apart.' }
  // The panel asks; its button says that the pair lies as told.
  if (pairDoubt(s, world)) return { state: s }
  const edit = () => ({ edit: 'picture.change' as const, id: p.id, set: { pairs: [...p.pairs, pair] } })
  return {
    state: s,
    made: { label: labelled('calibrate of', p), edit, then: { ...s, points: [], length: '', sure: false } },
  }
}

function pinned(s: Calibrating, px: [number, number], { picture: p }: BenchWorld): BenchAnswer<Calibrating> {
  const state = { ...s, pinning: false }
  const edit = () => ({ edit: 'picture.change' as const, id: p.id, set: { pin: { ...p.pin, px } } })
  return { state, made: { label: labelled('pin of', p), edit, then: state } }
}
