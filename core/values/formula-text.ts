import { refuse } from './refusal'

/** A piece of a formula as it is typed. */
export interface Token {
  kind: 'number' | 'inches' | 'word' | 'ref' | 'sign'
  text: string
}

/** A number of inches with its fraction: 6, 6.5, 1/2, 6 1/2 or 6-1/2. */
const INCHES = String.raw`(?:(\d+)(?:\s+|-)(\d+)\/(\d+)|(\d+)\/(\d+)|(\d+(?:\.\d+)?))`
/** Feet and inches as they are written: 10' 6 1/2", 9'-4", 7', 6 1/2". A dash between the two belongs to them when nothing stands around it. */
const FEET = new RegExp(
  String.raw`\s*(\d+(?:\.\d+)?)\s*['’′](?:(?:-|\s*)${INCHES}\s*["”″]?)?|\s*${INCHES}\s*["”″]`,
  'uy',
)

/** Feet and inches where they begin at a place in the text, in inches; null when there are none. */
function inchesAt(text: string, at: number): { inches: number; end: number } | null {
  FEET.lastIndex = at
  const found = FEET.exec(text)
  if (!found) return null
  const [feet, ...rest] = found.slice(1).map((part) => (part === undefined ? null : Number(part)))
  const [whole, over, under, over2, under2, plain] = rest.slice(0, 6).some((x) => x !== null)
    ? rest.slice(0, 6)
    : rest.slice(6)
  const fraction = (a: number | null | undefined, b: number | null | undefined) =>
    a === null || a === undefined || b === null || b === undefined
      ? 0
      : b === 0
        ? refuse('formula', 'A fraction of an inch divides by zero.', 'Write, for example, 6 1/2".')
        : a / b
  return {
    inches: (feet ?? 0) * 12 + (whole ?? 0) + fraction(over, under) + fraction(over2, under2) + (plain ?? 0),
    end: FEET.lastIndex,
  }
}

/** Cuts a typed formula into its pieces; refuses what is not understood. */
export function tokenize(text: string): Token[] {
  if (text.length > 400) refuse('formula', 'The formula is longer than 400 characters.', 'Split it over several dials.')
  const tokens: Token[] = []
  const pattern =
    /\s*(?:(\d+(?:\.\d*)?(?:e[-+]?\d+)?|\.\d+)|\{([0-9a-zA-Z-]+)\}|(m²|m2|ft²|°|\p{L}[\p{L}\p{N}_]*)|([-+*/(),;×÷−]))/uy
  // An equals sign in front says what any formula is.
  // Feet and inches by their words are one length, as they are by their signs: 12ft 6in.
  const clean = text
    .trim()
    .replace(/^=\s*/, '')
    .replace(/(\d+(?:\.\d+)?)\s*ft\s+(\d[\d\s./]*?)\s*in(?![\p{L}\p{N}_])/giu, '$1\' $2"')
  while (pattern.lastIndex < clean.length) {
    const from = pattern.lastIndex
    const measured = inchesAt(clean, from)
    if (measured) {
      tokens.push({ kind: 'inches', text: String(measured.inches) })
      pattern.lastIndex = measured.end
      continue
    }
    const found = pattern.exec(clean)
    if (!found)
      return refuse(
        'formula',
        `"${clean.slice(from).trim().slice(0, 12)}" is not understood.`,
        'Use numbers, + - * /, brackets, units and names of dials.',
      )
    const [, number, ref, word, sign] = found
    if (number !== undefined) tokens.push({ kind: 'number', text: number })
    else if (ref !== undefined) tokens.push({ kind: 'ref', text: ref })
    else if (word !== undefined) tokens.push({ kind: 'word', text: word })
    else
      tokens.push({
        kind: 'sign',
        text: ({ '×': '*', '÷': '/', '−': '-' } as Record<string, string>)[sign ?? ''] ?? sign ?? '',
      })
  }
  if (tokens.length === 0) refuse('formula', 'Nothing is typed.', 'Type a number.')
  return tokens
}
