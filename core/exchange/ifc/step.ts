/**
 * Writes the exchange structure of ISO 10303-21 (STEP). Arguments: numbers are reals, `int` whole numbers, strings are
 * escaped, `enumeration` for .NAME., references for #n, null for $, `derived` for * and arrays for lists.
 */
export type Argument = number | string | null | Reference | Special | readonly Argument[]
export interface Reference {
  ref: number
}
interface Special {
  text: string
}

/** A whole number, written without a point. */
export const int = (value: number): Special => ({ text: String(Math.round(value)) })
/** A word of an enumeration, written .WORD. */
export const enumeration = (name: string): Special => ({ text: `.${name}.` })
export const derived: Special = { text: '*' }

export class StepWriter {
  private readonly lines: string[] = []

  add(type: string, ...args: Argument[]): Reference {
    const ref = this.lines.length + 1
    this.lines.push(`#${ref}=${type}(${args.map(write).join(',')});`)
    return { ref }
  }

  /** A value that says its own type, where the schema lets it choose. */
  typed(type: string, value: Argument): Special {
    return { text: `${type}(${write(value)})` }
  }

  /** The whole file; `stamp` is an ISO 8601 time. */
  file(schema: string, name: string, stamp: string, author = ''): string {
    return [
      'ISO-10303-21;',
      'HEADER;',
      "FILE_DESCRIPTION(('ViewDefinition [ReferenceView_V1.2]'),'2;1');",
      `FILE_NAME(${write(name)},${write(stamp)},(${write(author)}),(''),'Geotome','Geotome','');`,
      `FILE_SCHEMA((${write(schema)}));`,
      'ENDSEC;',
      'DATA;',
      ...this.lines,
      'ENDSEC;',
      'END-ISO-10303-21;',
      '',
    ].join('\n')
  }
}

function write(value: Argument): string {
  if (value === null) return '$'
  if (typeof value === 'number') return real(value)
  if (typeof value === 'string') return `'${escaped(value)}'`
  if ('ref' in value) return `#${value.ref}`
  if ('text' in value) return value.text
  return `(${value.map(write).join(',')})`
}

/** A text as an IfcLabel, which has at most 255 characters; null where there is none. */
export const label = (text: string | null | undefined): string | null =>
  text ? [...text].slice(0, 255).join('') : null

/** A real always has a point; exponents are written after it. */
function real(value: number): string {
  if (!Number.isFinite(value)) throw new Error('A number in the export is not finite.')
  const rounded = Math.round(value * 1e9) / 1e9 + 0
  const text = String(rounded)
  if (text.includes('e')) {
    const [mantissa = '', exponent = ''] = text.split('e')
    return `${mantissa.includes('.') ? mantissa : `${mantissa}.`}E${exponent}`
  }
  return text.includes('.') ? text : `${text}.`
}

function escaped(text: string): string {
  let out = ''
  for (const char of text) {
    const code = char.codePointAt(0) ?? 0
    if (char === "'") out += "''"
    else if (char === '\\') out += '\\\\'
    else if (code >= 32 && code < 127) out += char
    else if (code > 0xffff) out += `\\X4\\${code.toString(16).toUpperCase().padStart(8, '0')}\\X0\\`
    else out += `\\X2\\${code.toString(16).toUpperCase().padStart(4, '0')}\\X0\\`
  }
  return out
}
