import { TOLERANCE } from '../../values'

/** What is tried at one place: the figure there, or why there is none. */
export type Tried = { at: number; figure: number } | { at: number; say: string }

/** What is sought: a figure that is about so much, at least, or at most; within `tolerance`, in the figure's own unit. */
export interface Sought {
  value: number
  bound: 'about' | 'least' | 'most'
  tolerance: number
}

/** What a search over one number came to. */
export interface Searched {
  /** where the figure is what is sought, or comes nearest to it; null where it could be had nowhere */
  best: { at: number; figure: number } | null
  reached: boolean
  /** the nearest place on the other side, that does not do: of whole numbers, or where the figure jumps */
  beside: { at: number; figure: number } | null
  /** what stands in the way, where it is not reached */
  why: 'end' | 'jump' | 'refused' | 'same' | 'turns' | null
  /** what was said where it was refused */
  refused: string | null
  tries: number
}

const SAMPLES = 16
/** whole numbers are all tried where they are no more than this */
const ALL = 24

/**
 * Seeks the place between two ends at which a function comes to what is sought: bracketed by samples, the bracket nearest to `now` narrowed by regula
 * falsi (Illinois) with bisection behind it; over whole numbers by bisection. Where no bracket is found, the nearest place by golden section.
 * The function may jump, and may be refused here and there. Yields how much is done, 0 to 1.
 */
export function* search(
  f: (at: number) => Tried,
  range: { from: number; to: number; now: number; whole: boolean },
  sought: Sought,
): Generator<number, Searched> {
  const { whole } = range
  const [from, to] = whole ? [Math.ceil(range.from), Math.floor(range.to)] : [range.from, range.to]
  const known = new Map<number, Tried>()
  const tryAt = (at: number): Tried => {
    const key = whole ? Math.round(at) : at
    let tried = known.get(key)
    if (!tried) known.set(key, (tried = f(key)))
    return tried
  }
  const off = (t: Tried) => ('figure' in t ? t.figure - sought.value : NaN)
  const does = (t: Tried) =>
    sought.bound === 'about'
      ? Math.abs(off(t)) <= sought.tolerance
      : sought.bound === 'least'
        ? off(t) >= -HAIR
        : off(t) <= HAIR
  /** on which side of what is sought a figure lies; what just does counts with what does */
  const side = (t: Tried) =>
    sought.bound === 'most' ? (off(t) <= HAIR ? -1 : 1) : off(t) >= (sought.bound === 'least' ? -HAIR : 0) ? 1 : -1
  const found = (
    best: Tried | null,
    reached: boolean,
    why: Searched['why'],
    beside: Tried | null = null,
  ): Searched => ({
    best: best && 'figure' in best ? best : null,
    reached,
    why,
    beside: beside && 'figure' in beside ? beside : null,
    refused: [...known.values()].flatMap((t) => ('say' in t ? [t.say] : []))[0] ?? null,
    tries: known.size,
  })
  const places = samplesOf(from, to, range.now, whole)
  for (const [i, at] of places.entries()) {
    tryAt(at)
    yield (0.5 * i) / places.length
  }
  const sound = places.map(tryAt).filter((t) => 'figure' in t)
  if (sound.length === 0) return found(null, false, 'refused')
  const figures = sound.map((t) => t.figure)
  const isSame = Math.max(...figures) - Math.min(...figures) <= HAIR * Math.max(1, Math.abs(figures[0] ?? 0))
  const now = tryAt(range.now)
  // What does already is left as it is.
  if (sought.bound === 'about' ? does(now) : does(now) && (isSame || sound.every(does))) return found(now, true, null)
  if (isSame) return found('figure' in now ? now : (sound[0] ?? null), false, 'same')
  const bracket = nearestBracket(sound, side, range.now)
  if (bracket) return yield* between(...bracket)
  const nearest = yield* narrowed(tryAt, sound, off, whole)
  if (does(nearest)) return found(nearest, true, null)
  // Where it is refused next to the nearest place, it is gone on to as near as it can be made.
  let best = nearest
  for (const wall of places.map(tryAt).filter((t) => 'say' in t && isNext(places, t.at, nearest.at))) {
    let [low, high] = [nearest, wall.at]
    for (let i = 0; i < 40 && Math.abs(high - low.at) > (whole ? 1 : TOLERANCE.touch); i++) {
      const mid = tryAt(whole ? clampedWhole((low.at + high) / 2, low.at, high) : (low.at + high) / 2)
      yield 0.9
      if (!('figure' in mid)) high = mid.at
      else if (side(mid) !== side(low)) return yield* between(low, mid)
      else low = mid
    }
    if (Math.abs(off(low)) < Math.abs(off(best))) best = low
  }
  if (does(best)) return found(best, true, null)
  const blocked = [...known.values()].some(
    (t) => 'say' in t && Math.abs(t.at - best.at) <= (whole ? 1 : TOLERANCE.least),
  )
  const atEnd = best.at === places[0] || best.at === places.at(-1)
  return found(best, false, blocked ? 'refused' : atEnd ? 'end' : 'turns')

  /** Narrows two places between which the figure passes what is sought. */
  function* between(first: Sound, second: Sound): Generator<number, Searched> {
    let [a, b] = [first, second]
    let [ga, gb] = [off(a), off(b)]
    const least = whole ? 1 : TOLERANCE.rounding
    for (let i = 0; i < 100 && Math.abs(b.at - a.at) > least; i++) {
      const cross = a.at + ((b.at - a.at) * ga) / (ga - gb)
      const inner = Number.isFinite(cross) && i % 3 !== 2 ? cross : (a.at + b.at) / 2
      const mid = tryAt(whole ? clampedWhole(inner, a.at, b.at) : inner)
      yield 0.5 + (0.5 * i) / 100
      if (!('figure' in mid)) return found(Math.abs(off(a)) < Math.abs(off(b)) ? a : b, false, 'refused')
      const g = off(mid)
      if (!whole && Math.abs(g) < HAIR && !isLevel(mid, side(mid) === side(a) ? b : a))
        return found(rounded(tryAt, mid, does, from, to), true, null)
      if (side(mid) === side(a)) {
        ;[a, ga] = [mid, g]
        gb /= 2
      } else {
        ;[b, gb] = [mid, g]
        ga /= 2
      }
    }
    const [one, other] = does(a) || (!does(b) && Math.abs(off(a)) <= Math.abs(off(b))) ? [a, b] : [b, a]
    const isSmooth = Math.abs(one.figure - other.figure) <= Math.max(sought.tolerance, HAIR)
    if (!whole && does(one) && isSmooth) return found(rounded(tryAt, one, does, from, to), true, null)
    return found(one, does(one), does(one) ? null : 'jump', other)
  }

  /** Returns true where the figure is the same a little farther on towards another place: it comes in steps. */
  function isLevel(at: Sound, towards: Sound): boolean {
    if (sought.bound === 'about') return false
    const next = tryAt(
      at.at + Math.sign(towards.at - at.at) * Math.min(TOLERANCE.touch, Math.abs(towards.at - at.at) / 2),
    )
    return 'figure' in next && next.figure === at.figure
  }
}

/** in a figure's unit: what arithmetic leaves of nothing */
const HAIR = TOLERANCE.fine

/** Even steps from one end to the other, and the place where it stands now. */
function samplesOf(from: number, to: number, now: number, whole: boolean): number[] {
  const count = whole ? Math.min(to - from, ALL) : SAMPLES
  const steps = Array.from({ length: count + 1 }, (_, i) => from + ((to - from) * i) / Math.max(1, count))
  const places = [...steps, ...(now >= from && now <= to ? [now] : [])].map((x) => (whole ? Math.round(x) : x))
  return [...new Set(places)].sort((a, b) => a - b)
}

type Sound = { at: number; figure: number }

/** The neighbouring places between which the figure passes what is sought, nearest to where it stands now. */
function nearestBracket(sound: readonly Sound[], side: (t: Tried) => number, now: number): [Sound, Sound] | null {
  let best: [Sound, Sound] | null = null
  const distance = ([a, b]: [Sound, Sound]) =>
    now >= a.at && now <= b.at ? 0 : Math.min(Math.abs(a.at - now), Math.abs(b.at - now))
  for (let i = 1; i < sound.length; i++) {
    const pair: [Sound, Sound] = [sound[i - 1] as Sound, sound[i] as Sound]
    if (side(pair[0]) === side(pair[1])) continue
    if (!best || distance(pair) < distance(best)) best = pair
  }
  return best
}

/** Whether one of two places tried comes right behind the other. */
const isNext = (places: readonly number[], a: number, b: number): boolean =>
  Math.abs(places.indexOf(a) - places.indexOf(b)) === 1

/** The place where the figure comes nearest to what is sought, by golden section between the neighbours of the best sample. */
function* narrowed(
  tryAt: (at: number) => Tried,
  sound: readonly Sound[],
  off: (t: Tried) => number,
  whole: boolean,
): Generator<number, Sound> {
  let best = sound.reduce((b, t) => (Math.abs(off(t)) < Math.abs(off(b)) ? t : b))
  const i = sound.indexOf(best)
  let [low, high] = [sound[i - 1]?.at ?? best.at, sound[i + 1]?.at ?? best.at]
  const ratio = (Math.sqrt(5) - 1) / 2
  for (let k = 0; k < 40 && high - low > (whole ? 1 : TOLERANCE.point); k++) {
    const [x, y] = [high - ratio * (high - low), low + ratio * (high - low)].map((v) =>
      tryAt(whole ? Math.round(v) : v),
    )
    yield 0.5 + k / 80
    if (!x || !y) break
    const [gx, gy] = [Math.abs(off(x)), Math.abs(off(y))]
    for (const t of [x, y]) if ('figure' in t && Math.abs(off(t)) < Math.abs(off(best))) best = t
    if (Number.isNaN(gx) || (!Number.isNaN(gy) && gy < gx)) low = x.at
    else high = y.at
    if (whole && x.at === y.at) break
  }
  return best
}

/** A whole number strictly between two others. */
const clampedWhole = (at: number, a: number, b: number): number =>
  Math.min(Math.max(a, b) - 1, Math.max(Math.min(a, b) + 1, Math.round(at)))

/** The roundest number near a place at which the figure still does. */
function rounded(
  tryAt: (at: number) => Tried,
  exact: Sound,
  does: (t: Tried) => boolean,
  from: number,
  to: number,
): Sound {
  for (const digits of [0, 1, 2, 3, 4]) {
    const unit = 10 ** -digits
    const at = Math.round(exact.at / unit) / 10 ** digits
    if (Math.abs(at - exact.at) > TOLERANCE.sought || at < from || at > to) continue
    const tried = tryAt(at)
    if ('figure' in tried && does(tried)) return tried
  }
  return exact
}
