import { expect, test, type Browser, type Page } from '@playwright/test'
import { addStoreys, desk, details, drawRectangle, figure, newProject, saved, settled, typeField } from './page'

/** A bar of five storeys, 40 by 12, and a second person who has it open at the Slice desk. */
async function two(page: Page, browser: Browser, name: string): Promise<Page> {
  await newProject(page, name)
  await desk(page, 'Form')
  await addStoreys(page, '4', '3')
  await drawRectangle(page, [0, 0], '40', '12', '15')
  await expect(figure(page, 'total')).toHaveText('2,400.00 m²')
  await desk(page, 'Slice')
  await saved(page)
  const other = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  await other.goto(page.url())
  await expect(figure(other, 'total')).toHaveText('2,400.00 m²')
  return other
}

test('two people work on one brief: each line holds what either made last, and each takes back its own', async ({
  page,
  browser,
}) => {
  const other = await two(page, browser, 'Brief together')
  await page.keyboard.press('w')
  await other.keyboard.press('w')
  const line = (of: Page, name: string) => of.locator(`[data-brief-line="${name}"]`)
  await page.getByRole('button', { name: 'Paste a table' }).click()
  await page.getByLabel('the table').fill('homes\t3,000\t5 %\nheight\t14\t\tat most')
  await page.getByRole('button', { name: 'Read it' }).click()
  await expect(line(other, 'homes').locator('[data-said]')).toHaveText('450.00 m² short')
  // The one asks for less while the other lets it be farther off.
  await page.getByLabel('target of homes').fill('2600')
  await page.keyboard.press('Enter')
  await other.getByLabel('tolerance of homes').fill('10 %')
  await other.keyboard.press('Enter')
  for (const of of [page, other]) await expect(line(of, 'homes')).toHaveAttribute('data-state', 'met')
  await page.keyboard.press('Control+z')
  for (const of of [page, other]) await expect(line(of, 'homes').locator('[data-said]')).toHaveText('300.00 m² short')
  // Pasting is one step, and is taken back as one only while nobody has worked on its lines since.
  await page.keyboard.press('Control+z')
  await expect(page.getByText('cannot be taken back any more')).toBeVisible()
  for (const of of [page, other]) await expect(line(of, 'homes')).toBeVisible()
  await other.keyboard.press('Control+z')
  await expect(line(page, 'homes').locator('[data-said]')).toHaveText('450.00 m² short')
  await page.keyboard.press('Control+z')
  for (const of of [page, other]) await expect(line(of, 'homes')).toHaveCount(0)
  await other.context().close()
})

test('two people change one plate: a void of the one and a part left out by the other both hold', async ({
  page,
  browser,
}) => {
  const other = await two(page, browser, 'Plate together')
  await page.getByRole('button', { name: 'Plate', exact: true }).click()
  await page.getByRole('menuitem', { name: 'Set in by a metre' }).click()
  await settled(page)
  // 40 x 12 less 38 x 10 on the level that is shown.
  await expect(figure(other, 'total')).toHaveText('2,300.00 m²')
  await desk(other, 'Form')
  await drawRectangle(other, [4, 4], '3', '2', '13')
  await details(other).getByLabel('it is').selectOption('void')
  await expect(figure(page, 'total')).toHaveText('2,282.00 m²')
  await details(page).locator('[data-plate-change] summary').click()
  await typeField(page, 'set in by', '2')
  await expect(figure(page, 'total')).toHaveText('2,190.00 m²')
  await expect(figure(other, 'total')).toHaveText('2,190.00 m²')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect(figure(page, 'total')).toHaveText('2,382.00 m²')
  await expect(figure(other, 'total')).toHaveText('2,382.00 m²')
  await other.context().close()
})
