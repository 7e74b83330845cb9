/** Dice of one input: the same for the same seed and number, on every machine. */
export interface Dice {
  next(): number
  int(below: number): number
  one<T>(of: readonly T[]): T
  chance(p: number): boolean
}

/** mulberry32, with seed and number mixed first. */
export function diceOf(seed: number, number: number): Dice {
  let state = Math.imul(seed ^ 0x9e3779b9, 0x85ebca6b) ^ Math.imul(number + 1, 0xc2b2ae35)
  const next = () => {
    state = (state + 0x6d2b79f5) | 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
  const int = (below: number) => Math.floor(next() * below)
  return { next, int, one: (of) => of[int(of.length)] as never, chance: (p) => next() < p }
}

/** Numbers, names and things that have misled programs before. */
export const ODD_NUMBERS = [
  0,
  -0,
  -1,
  1,
  1e-9,
  -1e-9,
  1e-300,
  0.1,
  2 ** 31,
  -(2 ** 31),
  2 ** 53,
  1e7,
  1e9,
  -1e9,
  1e18,
  1e300,
  -1e308,
  NaN,
  Infinity,
  -Infinity,
] as const
export const ODD_TEXTS = [
  '',
  ' ',
  'constructor',
  '__proto__',
  'prototype',
  'toString',
  'hasOwnProperty',
  '\u0000',
  '\u202e',
  '\ud800',
  '😀',
  '../../etc',
  '<script>',
  "'; --",
  '1e999',
  'NaN',
  '-',
  '=',
  '{',
  '{L0}',
  'x'.repeat(5000),
] as const
const ODD = [null, true, false, [], {}, [[]], ...ODD_NUMBERS, ...ODD_TEXTS]

/** The same data with some places changed: numbers to odd ones, things dropped, doubled, exchanged or put where others stood. */
export function mutated<T>(dice: Dice, data: T): unknown {
  const copy = JSON.parse(JSON.stringify(data)) as unknown
  const places: { of: Record<string, unknown>; key: string }[] = []
  const walk = (v: unknown) => {
    if (v === null || typeof v !== 'object') return
    for (const key of Object.keys(v)) {
      places.push({ of: v as Record<string, unknown>, key })
      walk((v as Record<string, unknown>)[key])
    }
  }
  walk(copy)
  for (let n = 1 + dice.int(3); n > 0 && places.length > 0; n--) {
    const { of, key } = dice.one(places)
    const old = of[key]
    const other = dice.one(places)
    switch (dice.int(7)) {
      case 0:
        of[key] = typeof old === 'number' ? dice.one(ODD_NUMBERS) : dice.one(ODD)
        break
      case 1:
        if (typeof old === 'number')
          of[key] = old * dice.one([-1, 0.5, 1.000001, 10, 1000, 1e6]) + dice.one([0, 0, 1e-7, -1])
        else of[key] = dice.one(ODD)
        break
      case 2:
        if (Array.isArray(of)) {
          of.copyWithin(Number(key), Number(key) + 1)
          of.pop()
        } else Reflect.deleteProperty(of, key)
        break
      case 3:
        if (Array.isArray(of)) of.push(old)
        else of[`${key}x`] = old
        break
      case 4:
        of[key] = other.of[other.key]
        break
      case 5:
        if (Array.isArray(old)) old.reverse()
        else if (typeof old === 'number') of[key] = old + (dice.next() - 0.5) * dice.one([1e-6, 0.01, 1, 100])
        break
      default:
        Object.defineProperty(of, dice.one(['constructor', '__proto__', 'edit', 'id', 'move', 'kind']), {
          value: dice.one(ODD),
          enumerable: true,
          writable: true,
          configurable: true,
        })
    }
  }
  try {
    JSON.stringify(copy)
  } catch {
    return null
  } // put into itself
  return copy
}

/** The same bytes with some flipped, dropped, doubled, cut off, or with a number written over another. */
export function damaged(dice: Dice, bytes: Uint8Array, textual: boolean): Uint8Array {
  let now: Uint8Array = Uint8Array.from(bytes)
  for (let n = 1 + dice.int(6); n > 0 && now.length > 0; n--) {
    const at = dice.int(now.length)
    const long = 1 + dice.int(Math.min(64, now.length - at))
    switch (dice.int(textual ? 7 : 5)) {
      case 0:
        now[at] = dice.int(256)
        break
      case 1:
        now[at] = (now[at] ?? 0) ^ (1 << dice.int(8))
        break
      case 2:
        now = joined(now.subarray(0, at), now.subarray(at + long))
        break
      case 3: {
        const piece = now.subarray(at, at + long)
        now = joined(now.subarray(0, at), ...Array.from({ length: 1 + dice.int(4) }, () => piece), now.subarray(at))
        break
      }
      case 4:
        if (dice.chance(0.3)) now = now.slice(0, at)
        else now.set([255, 255, 255, dice.int(256)].slice(0, Math.min(4, now.length - at)), at)
        break
      default:
        now = numberReplaced(dice, now, at)
    }
  }
  return now
}

const joined = (...pieces: Uint8Array[]): Uint8Array => {
  const all = new Uint8Array(pieces.reduce((n, p) => n + p.length, 0))
  let at = 0
  for (const p of pieces) {
    all.set(p, at)
    at += p.length
  }
  return all
}

/** The first number after a place in a text, exchanged for an odd one. */
function numberReplaced(dice: Dice, bytes: Uint8Array, from: number): Uint8Array {
  const digit = (b: number | undefined) => b !== undefined && ((b >= 48 && b <= 57) || b === 46 || b === 45)
  let start = from
  while (start < bytes.length && !digit(bytes[start])) start++
  let end = start
  while (digit(bytes[end])) end++
  return joined(
    bytes.subarray(0, start),
    new TextEncoder().encode(String(dice.chance(0.7) ? dice.one(ODD_NUMBERS) : dice.int(100))),
    bytes.subarray(end),
  )
}
