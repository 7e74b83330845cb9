import { expect, test, type Page } from '@playwright/test'
import { desk, details, level, openCopy, settled } from './page'

/** All that can be read on the page: its texts, and what is said of its fields. */
const said = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const texts: string[] = []
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
    for (let node = walker.nextNode(); node; node = walker.nextNode()) texts.push(node.textContent ?? '')
    for (const e of document.querySelectorAll('input, textarea, [aria-label], [title]'))
      texts.push(
        ...['aria-label', 'title', 'placeholder'].map((a) => e.getAttribute(a) ?? ''),
        e instanceof HTMLInputElement || e instanceof HTMLTextAreaElement ? e.value : '',
      )
    return texts
  })

const WRONG = { ft: /\d ?(?:mm|m²|m³|m2|m)(?![\w²³])/, mm: /\d ?(?:m|ft|ft²)(?![\w²³])/ }

for (const unit of ['ft', 'mm'] as const)
  test(`every desk, sheet and panel of the demo speaks in ${unit}`, async ({ page }) => {
    test.slow()
    await openCopy(page, `Kiln Quay in ${unit}`)
    const found: string[] = []
    const read = async (where: string) => {
      await settled(page)
      for (const text of await said(page)) if (WRONG[unit].test(text)) found.push(`${where}: ${text.slice(0, 120)}`)
    }
    await desk(page, 'Form')
    await details(page).getByLabel('unit').selectOption(unit)
    for (const name of ['Ground', 'Form', 'Slice', 'Fabric']) {
      await desk(page, name)
      await read(name)
    }
    // What is opened under the stage.
    await desk(page, 'Slice')
    for (const [key, sheet] of [
      ['l', 'ledger'],
      ['w', 'brief'],
      ['z', 'target'],
      ['n', 'findings'],
      ['t', 'levels'],
    ] as const) {
      await page.keyboard.press(key)
      await expect(page.getByRole('region', { name: sheet, exact: true })).toBeVisible()
      await read(sheet)
      await page.keyboard.press(key)
    }
    // The details of a level, of every mass, and of the ground's tabs.
    await level(page, 'Third').click()
    await read('level')
    await page.keyboard.press('Escape')
    await desk(page, 'Form')
    const names = await details(page).locator('button').filter({ hasText: 'high' }).allTextContents()
    expect(names.length).toBeGreaterThan(5)
    for (const name of names) {
      await details(page).locator('button').filter({ hasText: name }).first().click()
      await read(name)
      await page.keyboard.press('Escape')
    }
    // What is offered for the building, and a part.
    await desk(page, 'Fabric')
    await page.keyboard.press('Escape')
    await page.getByRole('toolbar', { name: 'Verbs' }).getByRole('button').first().click()
    await read('making a building')
    await page.keyboard.press('Escape')
    await page.keyboard.press('Escape')
    const part = details(page)
      .getByRole('button')
      .filter({ hasText: /wall|slab|roof/i })
      .first()
    await part.click()
    await read('part')
    await page.keyboard.press('Escape')
    await desk(page, 'Ground')
    const tabs = details(page).getByRole('tab')
    for (let i = 0; i < (await tabs.count()); i++) {
      await tabs.nth(i).click()
      await read(`Ground, tab ${i + 1}`)
    }
    expect(found).toEqual([])
  })
