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
  test.describe(`the rules of accessibility are kept, ${theme}`, () => {
    test.beforeEach(({ page }) => page.emulateMedia({ colorScheme: theme }))

    test('by the projects and the Ground desk', async ({ page }) => {
      await page.goto('/')
      await expect(page.locator('[data-project="Kiln Quay"]').first()).toBeVisible()
      await clean(page, 'projects', theme)
      await openDemo(page)
      await desk(page, 'Ground')
      await settled(page)
      await clean(page, 'Ground', theme)
      for (const tab of ['Project', 'Terrain', 'Pictures']) {
        await part(page, tab)
        await clean(page, `Ground, ${tab}`, theme)
      }
    })
    test('by the other desks, Find and the shortcuts', async ({ page }) => {
      await openDemo(page)
      for (const name of ['Form', 'Fabric', 'Slice']) {
        await desk(page, name)
        await settled(page)
        await clean(page, name, theme)
      }
      await page.keyboard.press('Control+k')
      await clean(page, 'find', theme)
      await page.keyboard.press('Escape')
      await page.keyboard.press('?')
      await clean(page, 'shortcuts', theme)
      await page.keyboard.press('Escape')
    })
    test('by the sheets', async ({ page }) => {
      await openDemo(page)
      await desk(page, 'Slice')
      await settled(page)
      for (const [key, region] of [
        ['l', 'ledger'],
        ['n', 'findings'],
        ['w', 'brief'],
        ['z', 'target'],
        ['t', 'levels'],
      ] as const) {
        await page.keyboard.press(key)
        await expect(page.getByRole('region', { name: region })).toBeVisible()
        // What the sheet asks the study for moves its rows once more.
        await settled(page)
        await clean(page, region, theme)
        await page.keyboard.press(key)
      }
    })
  })
