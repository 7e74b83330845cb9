import { expect, test } from '@playwright/test'
import { desk, figure, settled } from './page'

test('projects have pictures, are searched, put in order, copied, taken away and brought back', async ({ page }) => {
  await page.goto('/')
  // Three made-up starters.
  for (const [name, starter, total] of [
    ['Sail loft', /^Row of pitched sheds/, '1,170.00 m²'],
    ['Weigh house', /^Housing round a court/, '7,800.00 m²'],
  ] as const) {
    await page.getByRole('button', { name: 'New project' }).click()
    await page.getByLabel('name', { exact: true }).fill(name)
    await page.getByRole('radio', { name: starter }).check()
    await page.getByRole('button', { name: 'Make project' }).click()
    await expect(figure(page, 'total')).toHaveText(total)
    await settled(page)
    await page.getByRole('link', { name: 'All projects' }).click()
  }
  const loft = page.locator('[data-project="Sail loft"]').first()
  const house = page.locator('[data-project="Weigh house"]').first()
  await expect(loft).toContainText('1,170.00 m²')
  await expect(loft).toContainText('site 2,400 m²')
  await expect(loft.locator('[data-picture]')).toHaveAttribute('data-picture', /^[1-9]\d/)
  await page.getByLabel('Order of the projects').selectOption('by name')
  const names = () =>
    page.locator('[data-project]').evaluateAll((all) => all.map((e) => e.getAttribute('data-project') ?? ''))
  expect(await names()).toEqual([...(await names())].sort((a, b) => a.localeCompare(b)))
  await page.getByLabel('Search the projects').fill('loft')
  await expect(house).toBeHidden()
  await loft.getByRole('button', { name: 'Duplicate Sail loft', exact: true }).click()
  const copy = page.locator('[data-project="Sail loft, 2"]')
  await expect(copy).toContainText('1,170.00 m²')
  await copy.getByRole('button', { name: /^Remove/ }).click()
  await expect(copy).toBeHidden()
  await page.getByRole('button', { name: 'Taken away' }).click()
  await page.getByRole('list', { name: 'Taken away' }).getByRole('button', { name: 'Bring back' }).first().click()
  await expect(copy).toBeVisible()
  // Ended for good, after a question, it cannot be brought back.
  await copy.getByRole('button', { name: /^Remove/ }).click()
  const away = page.getByRole('list', { name: 'Taken away' })
  const gone = away.getByRole('listitem').filter({ hasText: 'Sail loft, 2' })
  await gone.getByRole('button', { name: 'End for good' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Cancel' }).click()
  await expect(gone).toBeVisible()
  await gone.getByRole('button', { name: 'End for good' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'End it for good' }).click()
  await expect(gone).toHaveCount(0)
  await expect(copy).toBeHidden()
})

test('a project begins with its site: the tool is in hand at the Ground desk', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('button', { name: 'New project' }).click()
  // Without a name there is a sentence, and nothing is made.
  await page.getByRole('button', { name: 'Make project' }).click()
  await expect(page.getByRole('alert')).toContainText('A project needs a name')
  await page.getByLabel('name', { exact: true }).fill('Lock island')
  await page.getByRole('radio', { name: /^A site/ }).check()
  await page.getByRole('button', { name: 'Make project' }).click()
  await expect(page.locator('[data-hint]')).toContainText('first corner of the site')
  for (const [east, north] of [
    ['0', '0'],
    ['40', '0'],
    ['40', '25'],
    ['0', '25'],
  ] as const) {
    // The first place is typed; the others as length and bearing from there.
    if (east === '0' && north === '0') {
      await page.keyboard.type(east)
      await page.keyboard.press('Tab')
      await page.keyboard.type(north)
    } else {
      await page.keyboard.type(east === '40' && north === '25' ? '25' : '40')
      await page.keyboard.press('Tab')
      await page.keyboard.type(north === '0' ? '90' : east === '40' ? '0' : '270')
    }
    await page.keyboard.press('Enter')
  }
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-figure="site-area"]')).toContainText('1,000.00')
  await desk(page, 'Form')
})
