import { expect, test, type Page } from '@playwright/test'
import {
  addStoreys,
  clickAt,
  desk,
  details,
  drawRectangle,
  figure,
  level,
  openedVerb,
  newProject,
  openDemo,
  pixel,
  saved,
  typeField,
  settled,
} from './page'

const drag = async (page: Page, from: { x: number; y: number }, dx: number, dy: number): Promise<void> => {
  await page.mouse.move(from.x, from.y)
  await page.mouse.down()
  await page.mouse.move(from.x + dx, from.y + dy, { steps: 6 })
  await page.mouse.up()
}
const handle = async (page: Page, pane: '3d' | 'plan', name: string): Promise<{ x: number; y: number }> => {
  const box = await page.locator(`[data-pane="${pane}"] [data-handle="${name}"]`).boundingBox()
  return { x: (box?.x ?? 0) + (box?.width ?? 0) / 2, y: (box?.y ?? 0) + (box?.height ?? 0) / 2 }
}
const viewOf = async (page: Page, pane: '3d' | 'plan') =>
  JSON.parse((await page.locator(`[data-pane="${pane}"]`).getAttribute('data-view')) ?? '{}') as {
    azimuth: number
    elevation: number
    scale: number
  }

test('the blade stands at the floor that is clicked, and its area label is there and of one size at every zoom', async ({
  page,
}) => {
  await openDemo(page)
  await level(page, 'Second').click()
  await expect(page.locator('[data-pane="plan"]').locator('..')).toContainText('plan at Second +8.55')
  const label = page.locator('[data-pane="3d"] [data-label]').filter({ hasText: 'homes 1,468.80' })
  await expect(label).toBeVisible()
  const before = await label.boundingBox()
  const { x, y } = await pixel(page, '3d', [40, 30, 8.55])
  await page.mouse.move(x, y)
  for (let i = 0; i < 6; i++) await page.mouse.wheel(0, 300)
  expect((await viewOf(page, '3d')).scale).toBeLessThan(3)
  await expect(label).toBeVisible()
  await expect(page.locator('[data-pane="3d"] [data-label]').filter({ hasText: 'studios 144.00' })).toBeVisible()
  expect((await label.boundingBox())?.height).toBeCloseTo(before?.height ?? 0, 0)
})

test('several floors are picked together with Shift, summed, deleted in one gesture and brought back in one', async ({
  page,
}) => {
  await openDemo(page)
  await settled(page)
  const total = await figure(page, 'total').textContent()
  await level(page, 'Eighth').click()
  await level(page, 'Ninth').click({ modifiers: ['Shift'] })
  await level(page, 'Tenth').click({ modifiers: ['Shift'] })
  await expect(details(page).locator('[data-figure="several"]')).toContainText('432.00')
  await details(page).getByRole('button', { name: 'Delete 3 levels' }).click()
  const ask = page.getByRole('dialog')
  if (await ask.isVisible()) await ask.getByRole('button', { name: 'Delete 3 levels' }).click()
  await expect(level(page, 'Ninth')).toHaveCount(0)
  await expect(figure(page, 'total')).toHaveText('12,116.29 m²')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(figure(page, 'total')).toHaveText(total ?? '')
})

test('the picked mass is raised by its arrow, reshaped by a corner, turned by its ring, all in strides and live', async ({
  page,
}) => {
  await newProject(page, 'Handles')
  await drawRectangle(page, [-4, -3], '8', '6', '3')
  await page.getByRole('button', { name: 'Show all' }).click()
  await drag(page, await handle(page, '3d', 'height'), 0, -60)
  const height = Number.parseFloat(await details(page).getByLabel('height', { exact: true }).inputValue())
  expect(height).toBeGreaterThan(3)
  expect(Math.abs(height * 10 - Math.round(height * 10))).toBeLessThan(1e-6)
  await expect(figure(page, 'volume')).toHaveText(`${(48 * height).toFixed(2)} m³`)
  // What a drag did to the total stays in the figures after it.
  await addStoreys(page, '2', '1')
  await expect(figure(page, 'change')).toHaveText('+48.00')
  await page.keyboard.press('Control+z')
  await expect(figure(page, 'change')).toHaveText('-48.00')
  // It belongs to that edit, and ends with the next one, whatever that does.
  await typeField(page, 'turned by', '15')
  await expect(figure(page, 'change')).toHaveCount(0)
  await page.keyboard.press('Control+z')
  await settled(page)
  await expect(figure(page, 'change')).toHaveCount(0)
  const ring = await handle(page, 'plan', 'turn')
  await drag(page, ring, -30, -60)
  const turned = Number.parseFloat(await details(page).getByLabel('turned by').inputValue())
  expect(turned).not.toBe(0)
  expect(turned % 15).toBe(0)
  await expect(figure(page, 'total')).toHaveText('48.00 m²')
  await drag(page, await handle(page, 'plan', 'corner-2'), 24, -16)
  await expect(details(page).getByText('outline, 4 corners')).toBeVisible()
  await expect(figure(page, 'total')).not.toHaveText('48.00 m²')
  await page.keyboard.press('Control+z')
  await expect(figure(page, 'total')).toHaveText('48.00 m²')
})

test('a mass is drawn from typed coordinates alone, and what cannot be read is said', async ({ page }) => {
  await newProject(page, 'Typed')
  await page.keyboard.press('r')
  await page.getByRole('textbox', { name: 'east', exact: true }).fill('100')
  await page.keyboard.press('Tab')
  await page.keyboard.type('50')
  await page.keyboard.press('Enter')
  await page.getByLabel('width').fill('12 q')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/Is it a unit/)).toBeVisible()
  await page.getByLabel('width').fill('12')
  await page.keyboard.press('Tab')
  await page.keyboard.type('2 * 4')
  await page.keyboard.press('Enter')
  await page.keyboard.type('6')
  await page.keyboard.press('Enter')
  await expect(figure(page, 'total')).toHaveText('96.00 m²')
  await expect(details(page).getByLabel('east')).toHaveValue('100.000 m')
})

test('a joined body is still edited in place, and taken apart again', async ({ page }) => {
  await newProject(page, 'Recipes')
  await drawRectangle(page, [0, 0], '20', '10', '3')
  await typeField(page, 'east', '0')
  await typeField(page, 'north', '0')
  await drawRectangle(page, [2, -2], '8', '5', '3')
  await typeField(page, 'east', '20')
  await typeField(page, 'north', '0')
  await page.getByRole('button', { name: 'Show all' }).click()
  await clickAt(page, 'plan', [22, 2, 0], { shift: true })
  await page.keyboard.press('Escape')
  await details(page)
    .getByRole('button', { name: /^Mass 1/ })
    .click()
  await clickAt(page, 'plan', [24, 2, 0], { shift: true })
  await openedVerb(page, 'Combine', 'Join')
  await expect(figure(page, 'total')).toHaveText('240.00 m²')
  await details(page).getByText('joined:').click()
  await details(page).locator('details').getByLabel('width').fill('10')
  await page.keyboard.press('Enter')
  await expect(figure(page, 'total')).toHaveText('250.00 m²')
  await details(page).getByRole('button', { name: 'Take it apart' }).click()
  await expect(details(page).getByRole('button', { name: /^Mass 2/ })).toBeVisible()
  await expect(figure(page, 'total')).toHaveText('250.00 m²')
})

test('desks, views, themes and help go by keyboard', async ({ page }) => {
  await openDemo(page)
  for (const [key, name] of [
    ['2', 'form'],
    ['4', 'fabric'],
    ['1', 'ground'],
    ['3', 'slice'],
  ] as const) {
    await page.keyboard.press(key)
    await expect(page).toHaveURL(new RegExp(`/${name}$`))
  }
  await page.locator('[data-pane="3d"]').focus()
  const before = await viewOf(page, '3d')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('+')
  await expect.poll(async () => (await viewOf(page, '3d')).scale).toBeGreaterThan(before.scale)
  expect((await viewOf(page, '3d')).azimuth).not.toBe(before.azimuth)
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog', { name: 'Shortcuts' })).toContainText('holds to an axis')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Dark theme' }).click()
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'ink')
  await level(page, 'Second').focus()
  await page.keyboard.press('ArrowUp')
  await expect(level(page, 'Third')).toBeFocused()
  await expect(details(page)).toContainText('Plate · Third')
})

test('a level typed in place in the spine moves, and a mark counts nothing', async ({ page }) => {
  await newProject(page, 'In place', { unit: 'mm' })
  await drawRectangle(page, [0, 0], '20 m', '10 m', '9 m')
  await addStoreys(page, '2', '3000')
  await expect(figure(page, 'total')).toHaveText('600.00 m²')
  const typed = async (name: string, height: string) => {
    await level(page, name).focus()
    await page.keyboard.press('Shift+Enter')
    await page.getByLabel(`height of ${name}`).fill(height)
    await page.keyboard.press('Enter')
  }
  await typed('Storey 2', '9.5 m')
  await expect(figure(page, 'total')).toHaveText('400.00 m²')
  await typed('Storey 1', '3500')
  await expect(details(page)).toContainText('Moving it carries 1 level')
  await details(page)
    .getByRole('button', { name: /Hold those above/ })
    .click()
  await expect(level(page, 'Storey 2')).toHaveAccessibleName(/9,500/)
  await level(page, 'Storey 1').click()
  await details(page).getByLabel('kind').selectOption('mark')
  await expect(figure(page, 'total')).toHaveText('200.00 m²')
  await saved(page)
  await desk(page, 'Slice')
  await expect(details(page)).toContainText('Mark')
})
