/** Names of storeys by a pattern in local habit. */
export const NAME_HABITS = [
  { pattern: 'Storey {n}', label: 'Storey 1, Storey 2' },
  { pattern: 'Level {nn}', label: 'Level 01, Level 02' },
  { pattern: '{first}', label: 'First, Second, Third' },
  { pattern: '{1st} storey', label: '1st storey, 2nd storey' },
  { pattern: '{first} floor', label: 'First floor, Second floor' },
] as const

const UNITS = [
  '',
  'first',
  'second',
  'third',
  'fourth',
  'fifth',
  'sixth',
  'seventh',
  'eighth',
  'ninth',
  'tenth',
  'eleventh',
  'twelfth',
  'thirteenth',
  'fourteenth',
  'fifteenth',
  'sixteenth',
  'seventeenth',
  'eighteenth',
  'nineteenth',
]
const TENS = ['', '', 'twenty', 'thirty', 'forty', 'fifty', 'sixty', 'seventy', 'eighty', 'ninety']

/**
 * The name that a pattern gives a number: {n} the number, {nn} with two digits, {1st} the number as it is spoken, {first} the word for it
 * (zero is the ground). Without any of these the number is put behind.
 */
export function nameBy(pattern: string, n: number): string {
  const whole = /\{(n|nn|1st|first)\}/.test(pattern) ? pattern : `${pattern} {n}`
  const name = whole
    .replaceAll('{nn}', (n < 0 ? '-' : '') + String(Math.abs(n)).padStart(2, '0'))
    .replaceAll('{n}', String(n))
    .replaceAll('{1st}', ordinal(n))
    .replaceAll('{first}', ordinalWord(n))
  return name.charAt(0).toUpperCase() + name.slice(1)
}

function ordinal(n: number): string {
  const [tens, ones] = [Math.abs(n) % 100, Math.abs(n) % 10]
  return `${n}${tens > 10 && tens < 14 ? 'th' : ones === 1 ? 'st' : ones === 2 ? 'nd' : ones === 3 ? 'rd' : 'th'}`
}

function ordinalWord(n: number): string {
  if (n === 0) return 'ground'
  if (n < 0 || n > 99) return ordinal(n)
  if (n < 20) return UNITS[n] as string
  const [tens, ones] = [Math.floor(n / 10), n % 10]
  return ones ? `${TENS[tens]}-${UNITS[ones]}` : `${(TENS[tens] as string).slice(0, -1)}ieth`
}

/** The same name with its number one higher; null where it has none. Ordinals go on as ordinals, words as words. */
export function nextName(name: string): string | null {
  for (let n = 99; n >= 1; n--) {
    const word = new RegExp(`(?<!\\p{L}|-)${ordinalWord(n)}(?!\\p{L}|-)`, 'iu')
    const found = word.exec(name)
    if (found) {
      const next = ordinalWord(n + 1)
      return (
        name.slice(0, found.index) +
        (/^\p{Lu}/u.test(found[0]) ? next.charAt(0).toUpperCase() + next.slice(1) : next) +
        name.slice(found.index + found[0].length)
      )
    }
  }
  const digits = /(\d+)(st|nd|rd|th)?(?!.*\d)/.exec(name)
  if (!digits) return null
  const next = Number(digits[1]) + 1
  return (
    name.slice(0, digits.index) +
    (digits[2]
      ? ordinal(next)
      : String(next).padStart(digits[1]?.startsWith('0') ? (digits[1]?.length ?? 1) : 1, '0')) +
    name.slice(digits.index + digits[0].length)
  )
}
