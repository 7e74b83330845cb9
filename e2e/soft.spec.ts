import { expect, test, type Page } from '@playwright/test'
import { addStoreys, desk, details, drawRectangle, figure, newProject, openedVerb, pixel, settled } from './page'

const volume = async (page: Page) =>
  Number.parseFloat(((await figure(page, 'volume').textContent()) ?? '').replace(/[^0-9.]/g, ''))

test('a soft form is pulled by its cage, an edge is made smooth by a pick, a face is left open', async ({ page }) => {
  await newProject(page, 'Pulled softly')
  await addStoreys(page, '1', '3')
  await desk(page, 'Form')
  await drawRectangle(page, [-5, -4], '10', '8', '6')
  await openedVerb(page, 'Shape', 'Soft form')
  await settled(page)
  await expect(page.locator('[data-pane="plan"] [data-cage="12"]')).toHaveCount(1)
  await details(page).getByLabel('edges are').selectOption('crisp')
  await settled(page)
  await expect(figure(page, 'volume')).toContainText('480.00')
  // A corner of the cage, in plan: a quarter of the east face goes along.
  const drag = async (from: [number, number, number], to: [number, number, number]) => {
    const [a, b] = [await pixel(page, 'plan', from), await pixel(page, 'plan', to)]
    await page.mouse.move(a.x, a.y)
    await page.mouse.down()
    await page.mouse.move((a.x + b.x) / 2, (a.y + b.y) / 2, { steps: 4 })
    await page.mouse.move(b.x, b.y)
    await page.mouse.up()
    await settled(page)
  }
  await drag([5, 4, 6], [7, 4, 6])
  await expect(figure(page, 'volume')).toContainText('504.00')
  await expect(page.locator('footer')).toContainText('0 findings')
  await page.keyboard.press('Control+z')
  await settled(page)
  await expect(figure(page, 'volume')).toContainText('480.00')
  // An edge is picked by the dot in its middle, and has handles and fields of its own.
  const middle = await pixel(page, 'plan', [5, 0, 6])
  await page.mouse.click(middle.x, middle.y)
  await expect(details(page)).toContainText(/edge, (top|base) and east/i)
  await details(page).getByRole('button', { name: 'Smooth', exact: true }).click()
  await settled(page)
  const smooth = await volume(page)
  expect(smooth).toBeLessThan(480)
  await details(page).getByRole('textbox', { name: 'this edge crisp by' }).fill('1')
  await page.keyboard.press('Enter')
  await settled(page)
  expect(await volume(page)).toBeGreaterThan(smooth)
  await details(page).getByRole('button', { name: 'As the others' }).click()
  await settled(page)
  await expect(figure(page, 'volume')).toContainText('480.00')
  await page.keyboard.press('Escape')
  // Half of it is the image of the other: what is pulled on one side happens on both.
  await details(page).getByLabel('symmetric').selectOption('x')
  await settled(page)
  await expect(figure(page, 'volume')).toContainText('480.00')
  await drag([-5, 4, 6], [-7, 4, 6])
  await expect(figure(page, 'volume')).toContainText('528.00')
})
