import { readdirSync, readFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { expect, it } from 'vitest'

const root = resolve(import.meta.dirname, '../..')
/** All strings in the core that end as a sentence does: refusals, remedies, findings. Computed values stand in braces. */
const sentences = readdirSync(resolve(root, 'core'), { recursive: true, encoding: 'utf8' })
  .filter((file) => file.endsWith('.ts') && !/testing|exchange|node_modules/.test(file))
  .filter((file) => !file.endsWith('.test.ts'))
  .flatMap((file) =>
    [...readFileSync(resolve(root, 'core', file), 'utf8').matchAll(/(['`])((?:(?!\1|\n).)*[.!])\1/g)].map((m) => ({
      file,
      say: m[2] ?? '',
    })),
  )
const UNIT = '(?! ?(?:m|mm|m²|km|°|%)(?!\\w))'

it('no sentence of the core says a length without its unit: sayInUnits turns "3.15 m" into the unit of the project', () => {
  expect(sentences.length).toBeGreaterThan(400)
  const wrong = sentences.filter(({ say }) => {
    const typed = say.replace(/\$\{[^}]*\}/g, '')
    return (
      (new RegExp(`(?<![\\w.])\\d+\\.\\d+${UNIT}(?!\\d|\\.\\d)`).test(typed) && !say.startsWith('An opacity')) ||
      new RegExp(`toFixed\\(\\d\\)\\}${UNIT}`).test(say)
    )
  })
  expect(wrong).toEqual([])
})
