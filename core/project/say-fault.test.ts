import { expect, it } from 'vitest'
import { projectWith, withMass } from '../testing/make'
import { readProjectText, writeProjectText } from './file'

const text = writeProjectText(withMass(projectWith([0, 3]), { name: 'Hall', box: [0, 0, 10, 8], height: 6 }))
type Data = { [key: string]: Data } & Data[]
/** Why the project is refused with something changed in it. */
const refusal = (change: (project: Data, mass: Data) => void): string => {
  const file = JSON.parse(text) as Data
  const mass = Object.values(Object.values(file.project?.schemes ?? {}).at(-1)?.masses ?? {})[0] as unknown as Data
  change(file.project as Data, mass)
  try {
    readProjectText(JSON.stringify(file))
    return ''
  } catch (e) {
    return (e as Error).message
  }
}
const put = (at: Data | undefined, key: string, value: unknown) => Object.assign(at as object, { [key]: value })

it('a project that cannot be read says by names where, what is there, and what should be', () => {
  for (const [change, say] of [
    [(p: Data) => put(p, 'unit', 'yd'), 'unit is "yd", and should be "m", "mm" or "ft"'],
    [(p: Data) => delete (p as Partial<Data>).unit, 'unit is missing'],
    [(_: Data, m: Data) => put(m, 'colour', 'red'), 'mass "Hall", colour is not known there'],
    [
      (_: Data, m: Data) => put(m.recipe?.[1], 'height', 'x'),
      'mass "Hall", recipe 2 (raise), height is "x", and should be a number',
    ],
    [
      (_: Data, m: Data) => put(m.recipe?.[1], 'move', 'spin'),
      '(spin), move is "spin", and should be "outline", "inset"',
    ],
    [(_: Data, m: Data) => put(m, 'name', ''), 'name is not right: A name needs at least one character'],
  ] as [(p: Data, m: Data) => void, string][])
    // prettier-ignore
    expect(refusal(change)).toContain(say)
  const several = refusal((_, m) => put(m, 'recipe', [...(m.recipe ?? []), { move: 'raise' }]))
  expect(several).toMatch(/recipe 3 \(raise\), id; .*recipe 3 \(raise\), height are missing\. Correct it in the file/)
  // No words of the schema's package.
  for (const say of [several, refusal((p) => put(p, 'site', 3))]) expect(say).not.toMatch(/Invalid|Expected|received/)
})

it('a file that is no project says what it is', () => {
  const why = (of: string) => {
    try {
      readProjectText(of)
      return ''
    } catch (e) {
      return (e as Error).message
    }
  }
  expect(why('')).toContain('there is nothing in it')
  expect(why('<!doctype html><html>')).toContain('it is a web page')
  for (let at = text.length - 1; at > 0; at -= 97)
    expect(why(text.slice(0, at))).toContain('it ends before it is complete')
  expect(why('solid cube\n facet normal 0 0 1')).toContain('it is some other kind of file')
  expect(why(text.replace(':', ':#'))).toMatch(/it is damaged( at character \d+)?\. Choose/)
  expect(why('{"a":1}')).toContain('it does not say that it is one, or of which version')
})
