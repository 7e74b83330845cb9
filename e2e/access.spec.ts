import AxeBuilder from '@axe-core/playwright'
import { expect, test, type Page } from '@playwright/test'
import { desk, openDemo, part, settled } from './page'

type Theme = 'light' | 'dark'

/** Nothing on the screen breaks a rule of WCAG 2.2 up to AA that a program can check; the themes differ in their colours only. */
async function clean(page: Page, screen: string, theme: Theme): Promise<void> {
  const axe = new AxeBuilder({ page })
  const asked =
    theme === 'light'
      ? axe.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
      : axe.withRules(['color-contrast'])
  const { violations } = await asked.analyze()
  const found = violations.flatMap((v) => v.nodes.map((n) => `${screen}: ${v.id}: ${n.html.slice(0, 160)}`))
  expect(found).toEqual([])
}

for (const theme of ['light', 'dark'] satisfies Theme[])
  test(`every main screen passes the rules of accessibility, ${theme}`, async ({ page }) => {
    test.setTimeout(150_000)
    await page.emulateMedia({ colorScheme: theme })
    await page.goto('/')
    await expect(page.locator('[data-project="Kiln Quay"]').first()).toBeVisible()
    await clean(page, 'projects', theme)
    await openDemo(page)
    for (const name of ['Ground', 'Form', 'Fabric', 'Slice']) {
      await desk(page, name)
      await settled(page)
      await clean(page, name, theme)
      if (name !== 'Ground') continue
      for (const tab of ['Project', 'Terrain', 'Pictures']) {
        await part(page, tab)
        await clean(page, `${name}, ${tab}`, theme)
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
      await clean(page, region, theme)
      await page.keyboard.press(key)
    }
    await page.keyboard.press('Control+k')
    await clean(page, 'find', theme)
    await page.keyboard.press('Escape')
    await page.keyboard.press('?')
    await clean(page, 'shortcuts', theme)
    await page.keyboard.press('Escape')
  })
