import { expect, it } from 'vitest'

it('every package that ships, and the font, has its notice in what the page offers', async () => {
  const { shipped, notices } = (await import('../../scripts/notices.mjs' as string)) as {
    shipped(): { pack: { name: string; version: string } }[]
    notices(): string
  }
  const text = notices()
  const packs = shipped()
  expect(packs.length).toBeGreaterThan(100)
  expect(packs.filter(({ pack }) => !text.includes(`${pack.name} ${pack.version} (`))).toEqual([])
  expect(text).toContain('SIL OPEN FONT LICENSE')
})
