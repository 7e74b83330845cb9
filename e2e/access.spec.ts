import AxeBuilder from '@axe-core/playwright'
import { expect, test, type Page } from '@playwright/test'
import { desk, openDemo, part, settled } from './page'

/** Nothing on the screen breaks a rule of WCAG 2.2 up to AA that a program can check. */
async function clean(page: Page, screen: string): Promise<void> {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
    .analyze()
  const found = violations.flatMap((v) => v.nodes.map((n) => `${screen}: ${v.id}: ${n.html.slice(0, 160)}`))
  expect(found).toEqual([])
}

for (const theme of ['light', 'dark'] as const)
  test(`every main screen passes the rules of accessibility, ${theme}`, async ({ page }) => {
    test.setTimeout(150_000)
    await page.emulateMedia({ colorScheme: theme })
    await page.goto('/')
    await expect(page.locator('[data-project="Kiln Quay"]').first()).toBeVisible()
    await clean(page, 'projects')
    await openDemo(page)
    for (const name of ['Ground', 'Form', 'Fabric', 'Slice']) {
      await desk(page, name)
      await settled(page)
      await clean(page, name)
      if (name !== 'Ground') continue
      for (const tab of ['Project', 'Terrain', 'Pictures']) {
        await part(page, tab)
        await clean(page, `${name}, ${tab}`)
      }
    }
    for (const [key, region] of [
      ['l', 'ledger'],
      ['n', 'findings'],
      ['w', 'brief'],
      ['z', 'target'],
      ['t', 'levels'],
    ] as const) {
      await page.keyboard.press(key)
      await expect(page.getByRole('region', { name: region })).toBeVisible()
      await clean(page, region)
      await page.keyboard.press(key)
    }
    await page.keyboard.press('Control+k')
    await clean(page, 'find')
    await page.keyboard.press('Escape')
    await page.keyboard.press('?')
    await clean(page, 'shortcuts')
    await page.keyboard.press('Escape')
  })
