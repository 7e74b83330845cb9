import { expect, test } from '@playwright/test'
import {
  addLevels,
  addStoreys,
  cell,
  clickAt,
  desk,
  details,
  drawRectangle,
  figure,
  level,
  newProject,
  openDemo,
  pixel,
  typeField,
  verb,
} from './page'

test('the list of projects shows the demo with the total that the server computed', async ({ page }) => {
  await page.goto('/')
  await expect(page.locator('[data-project="Kiln Quay"]')).toContainText('12,548.29 m²')
  await openDemo(page)
  await expect(figure(page, 'total')).toHaveText('12,548.29 m²')
})

test('a bar is drawn by a click and typed lengths, gets its storeys, and every floor shows its area', async ({
  page,
}) => {
  await newProject(page, 'Bar', { site: '1,000' })
  await drawRectangle(page, [-5, -5], '31.4', '12.6', '18.9', [-1, 1])
  await expect(figure(page, 'total')).toHaveText('395.64 m²')
  await addStoreys(page, '6', '3.15')
  await expect(figure(page, 'total')).toHaveText('2,373.84 m²')
  await expect(figure(page, 'volume')).toHaveText('7,477.60 m³')
  await expect(figure(page, 'ratio')).toHaveText('2.37')
  await desk(page, 'Slice')
  await verb(page, 'Ledger').click()
  await expect(cell(page, 'Storey 5', 'area')).toHaveText('395.64')
  await expect(cell(page, 'Storey 6', 'area')).toHaveText('0.00')
  await expect(cell(page, 'Storey 5', 'perimeter')).toHaveText('88.000')
})

test('a polygon takes clicks and typed lengths in any mix; Escape goes back one step; a crossing outline is refused with a sentence', async ({
  page,
}) => {
  await newProject(page, 'Polygon')
  await verb(page, 'Polygon').click()
  await clickAt(page, 'plan', [0, 0, 0])
  const at = await pixel(page, 'plan', [8, 0, 0])
  await page.mouse.move(at.x, at.y)
  await expect(page.locator('[data-pane="plan"]')).toContainText('along east')
  await page.keyboard.type('12')
  await page.keyboard.press('Enter')
  await page.keyboard.type('9')
  await page.keyboard.press('Tab')
  await page.keyboard.type('0')
  await page.keyboard.press('Enter')
  await page.keyboard.type('5')
  await page.keyboard.press('Tab')
  await page.keyboard.type('225')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await page.keyboard.type('12')
  await page.keyboard.press('Tab')
  await page.keyboard.type('270')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Enter')
  await page.keyboard.type('3000 mm')
  await page.keyboard.press('Enter')
  await expect(figure(page, 'total')).toHaveText('108.00 m²')
  await expect(figure(page, 'volume')).toHaveText('324.00 m³')
  await details(page).getByLabel('3 x', { exact: true }).fill('-12')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/crosses itself/)).toBeVisible()
  await expect(figure(page, 'total')).toHaveText('108.00 m²')
})

test('a mass is picked, dragged in strides, turned, given another use, base and storeys, and deleted', async ({
  page,
}) => {
  await newProject(page, 'Moves')
  await drawRectangle(page, [0, 0], '20', '10', '6')
  const east = await details(page).getByLabel('east').inputValue()
  const x0 = Number.parseFloat(east)
  const from = await pixel(page, 'plan', [
    x0 + 10,
    Number.parseFloat(await details(page).getByLabel('north').inputValue()) + 5,
    0,
  ])
  await page.mouse.move(from.x, from.y)
  await page.mouse.down()
  await page.mouse.move(from.x + 40, from.y, { steps: 5 })
  await page.mouse.up()
  await expect(details(page).getByLabel('east')).not.toHaveValue(east)
  const moved = Number.parseFloat(await details(page).getByLabel('east').inputValue()) - x0
  expect(Math.abs(moved * 10 - Math.round(moved * 10))).toBeLessThan(1e-6)
  await typeField(page, 'turned by', '30')
  await expect(figure(page, 'total')).toHaveText('200.00 m²')
  await addStoreys(page, '1', '3')
  await expect(figure(page, 'total')).toHaveText('400.00 m²')
  await details(page).getByLabel('use').selectOption({ label: 'market' })
  await details(page)
    .getByRole('checkbox', { name: /Storey 1/ })
    .click()
  await expect(figure(page, 'total')).toHaveText('200.00 m²')
  await details(page).getByLabel('stands on').selectOption({ label: 'Storey 1  3.000' })
  await expect(figure(page, 'height')).toContainText('9.00')
  await page.keyboard.press('Delete')
  await expect(figure(page, 'total')).toHaveText('0.00 m²')
})

test('fields take arithmetic and the names of dials, and say what is wrong', async ({ page }) => {
  await newProject(page, 'Formulas', { unit: 'mm' })
  await details(page).getByLabel("new dial's name").fill('bay')
  await details(page).getByLabel("new dial's value").fill('6 m')
  await details(page).getByRole('button', { name: 'Add dial' }).click()
  await drawRectangle(page, [0, 0], '20 m', '10000', '2800 + 300')
  await expect(details(page).getByLabel('height', { exact: true })).toHaveValue('3,100 mm')
  const width = details(page).getByLabel('width', { exact: true })
  await width.click()
  await width.fill('bay * 4 + 300')
  await expect(details(page).getByText('= 24,300 mm')).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(figure(page, 'total')).toHaveText('243.00 m²')
  await width.click()
  await width.fill('bay * bay')
  await expect(details(page).getByRole('alert')).toContainText('gives an area')
  await page.keyboard.press('Escape')
  await width.click()
  await width.fill('0')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/width of "Mass 1" is zero/)).toBeVisible()
  await expect(figure(page, 'total')).toHaveText('243.00 m²')
})

test('two boxes that overlap count once, the finding says so, and its remedy joins them', async ({ page }) => {
  await newProject(page, 'Overlap')
  await drawRectangle(page, [0, 0], '20', '10', '3')
  await drawRectangle(page, [2, -2], '20', '10', '3')
  await typeField(page, 'east', '15')
  await typeField(page, 'north', '0')
  await page.keyboard.press('Escape')
  await details(page)
    .getByRole('button', { name: /^Mass 1/ })
    .click()
  await typeField(page, 'east', '0')
  await typeField(page, 'north', '0')
  await expect(figure(page, 'total')).toHaveText('350.00 m²')
  await figure(page, 'findings').click()
  await expect(page.locator('[data-finding="overlap"]')).toContainText('50.00 m²')
  await page.locator('[data-finding="overlap"]').getByRole('button', { name: 'Join them', exact: true }).click()
  await expect(figure(page, 'findings')).toHaveText('0 findings')
  await expect(figure(page, 'total')).toHaveText('350.00 m²')
})

test('levels are added, dragged, typed, hung under the datum and deleted in the spine, the areas following live', async ({
  page,
}) => {
  await newProject(page, 'Levels')
  await drawRectangle(page, [0, 0], '20', '10', '70')
  await addStoreys(page, '20', '3.15')
  await expect(figure(page, 'total')).toHaveText('4,200.00 m²')
  await level(page, 'Storey 20').focus()
  await page.keyboard.press('Enter')
  await page.getByLabel('name of Storey 20').fill('Attic')
  await page.keyboard.press('Enter')
  await expect(level(page, 'Attic')).toBeVisible()
  await typeField(page, 'height', '75')
  await expect(figure(page, 'total')).toHaveText('4,000.00 m²')
  const row = await level(page, 'Attic').boundingBox()
  await page.mouse.move((row?.x ?? 0) + 20, (row?.y ?? 0) + 8)
  await page.mouse.down()
  await page.mouse.move((row?.x ?? 0) + 20, (row?.y ?? 0) + 70, { steps: 6 })
  await expect(figure(page, 'total')).toHaveText('4,200.00 m²')
  await page.mouse.up()
  await expect(figure(page, 'total')).toHaveText('4,200.00 m²')
  await addLevels(page, '-3.30 Cellar')
  await expect(level(page, 'Cellar')).toHaveAccessibleName(/-3\.30/)
  await level(page, 'Storey 5').click()
  await typeField(page, 'height', '16.05')
  await expect(details(page).getByRole('group', { name: 'Two ways' })).toContainText('Hold those above')
  await details(page)
    .getByRole('button', { name: /Carry those above/ })
    .click()
  await expect(level(page, 'Storey 6')).toHaveAccessibleName(/19\.20/)
  await level(page, 'Storey 3').click()
  await level(page, 'Storey 3').focus()
  await page.keyboard.press('Delete')
  await page.getByRole('button', { name: 'Delete level' }).last().click()
  await expect(level(page, 'Storey 3')).toHaveCount(0)
})
