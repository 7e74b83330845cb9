import { expect, test } from '@playwright/test'
import {
  addStoreys,
  cell,
  clickAt,
  desk,
  details,
  drawCircle,
  drawRectangle,
  figure,
  newProject,
  pixel,
  saved,
  typeField,
  verb,
} from './page'

test('a circle is drawn by its centre and a typed radius, and keeps its true area and perimeter', async ({ page }) => {
  await newProject(page, 'Round')
  await desk(page, 'Form')
  await drawCircle(page, '6.3', '2800 mm + 350 mm')
  await expect(figure(page, 'total')).toHaveText('124.69 m²')
  await expect(details(page).getByLabel('height', { exact: true })).toHaveValue('3.150 m')
  await page.keyboard.press('l')
  await expect(cell(page, 'Ground', 'perimeter')).toHaveText('39.584')
})

test('a side becomes an arc by its rise, and a hole is taken off', async ({ page }) => {
  await newProject(page, 'Arcs')
  await desk(page, 'Form')
  await drawRectangle(page, [0, 0], '12', '8', '3')
  await details(page).getByRole('button', { name: 'Free its corners' }).click()
  await typeField(page, 'arc to 3, rise', '4')
  await expect(figure(page, 'total')).toHaveText('121.13 m²')
  await page.keyboard.press('h')
  await expect(page.locator('[data-hint]')).toContainText('centre of the hole')
  await clickAt(page, 'plan', [6, 4, 0])
  await page.keyboard.type('2')
  await page.keyboard.press('Enter')
  await expect(figure(page, 'total')).toHaveText('108.57 m²')
  await saved(page)
})

test('a polygon is drawn with an arc of a typed length, bearing and rise', async ({ page }) => {
  await newProject(page, 'Drawn arcs')
  await desk(page, 'Form')
  await page.keyboard.press('p')
  await expect(page.locator('[data-hint]')).toContainText('first corner')
  await clickAt(page, 'plan', [0, 0, 0])
  await clickAt(page, 'plan', [6, 0, 0])
  await page.keyboard.press('a')
  await expect(page.getByRole('group', { name: 'The next side' }).getByRole('button', { name: 'arc' })).toHaveAttribute(
    'aria-pressed',
    'true',
  )
  for (const [text, key] of [
    ['4', 'Tab'],
    ['0', 'Tab'],
    ['2', 'Enter'],
  ] as const) {
    await page.keyboard.type(text)
    await page.keyboard.press(key)
  }
  for (let i = 0; i < 3; i++) await page.keyboard.press('a')
  await clickAt(page, 'plan', [0, 4, 0])
  await page.keyboard.press('Enter')
  await page.keyboard.type('3')
  await page.keyboard.press('Enter')
  await expect(figure(page, 'total')).toHaveText('30.28 m²')
})

test('sides lean to a scale, the form twists, and a raise follows its level', async ({ page }) => {
  await newProject(page, 'Leaning')
  await addStoreys(page, '2', '15')
  await desk(page, 'Form')
  await drawRectangle(page, [0, 0], '20', '20', '30')
  await details(page).getByRole('button', { name: 'Taper' }).click()
  await typeField(page, 'scale at the top', '0.6')
  await page.keyboard.press('l')
  await expect(cell(page, 'Ground', 'area')).toHaveText('400.00')
  await expect(cell(page, 'Storey 1', 'area')).toHaveText('256.00')
  await details(page).getByRole('button', { name: 'Twist' }).click()
  await typeField(page, 'turns by', '60')
  await expect(cell(page, 'Storey 1', 'area')).toHaveText('256.00')
  await page.getByRole('region', { name: 'ledger' }).getByRole('button', { name: 'Close' }).click()
  await details(page).getByLabel('up to').selectOption({ label: 'Storey 2  30.000' })
  await expect(details(page)).toContainText('30.000 m high; it follows the level')
})

test('a project in feet reads feet, inches and fractions, and shows what it understood before it takes it', async ({
  page,
}) => {
  await newProject(page, 'Feet', { unit: 'ft' })
  await desk(page, 'Form')
  await drawRectangle(page, [0, 0], '7', '10\' 6 1/2"', '9')
  const width = details(page).getByLabel('width', { exact: true })
  await expect(width).toHaveValue("7'")
  await expect(details(page).getByLabel('depth', { exact: true })).toHaveValue('10\' 6 1/2"')
  await width.click()
  await width.fill('3200 mm')
  await expect(details(page)).toContainText('= 10\' 6"')
  await page.keyboard.press('Escape')
  await expect(figure(page, 'total')).toHaveText('73.79 ft²')
})

test('the pointer catches the centre of a circle, and the height a level', async ({ page }) => {
  await newProject(page, 'Catching')
  await addStoreys(page, '3', '3.15')
  await desk(page, 'Form')
  await drawCircle(page, '5', '3')
  await page.keyboard.press('r')
  const { x, y } = await pixel(page, 'plan', [0.1, 0.05, 0])
  await page.mouse.move(x - 4, y)
  await page.mouse.move(x, y)
  await expect(page.locator('[data-pane="plan"]').getByText('centre')).toBeVisible()
  await page.mouse.down()
  await page.mouse.up()
  await page.keyboard.type('8')
  await page.keyboard.press('Tab')
  await page.keyboard.type('6')
  await page.keyboard.press('Enter')
  // The height begins at 9 m; a little up it meets the level at 9.45.
  const pane = await page.locator('[data-pane="plan"]').boundingBox()
  const at = { x: (pane?.x ?? 0) + 200, y: (pane?.y ?? 0) + 300 }
  await page.mouse.move(at.x, at.y)
  const view = JSON.parse((await page.locator('[data-pane="plan"]').getAttribute('data-view')) ?? '{}') as {
    scale: number
  }
  await page.mouse.move(at.x, at.y - 0.45 * view.scale)
  await expect(page.locator('[data-live]').getByLabel('height')).toHaveAttribute('placeholder', 'to Storey 3')
  await page.keyboard.press('Enter')
  await expect(details(page).getByLabel('up to')).toHaveValue(/.+/)
})

test('leaning and round forms become walls, and a twisted one says how far upright walls are off', async ({ page }) => {
  await newProject(page, 'Walls')
  await addStoreys(page, '3', '3.15')
  await desk(page, 'Form')
  await drawCircle(page, '6.3', '9.45')
  await desk(page, 'Fabric')
  await page.keyboard.press('b')
  await expect(page.locator('[data-offer="curved wall"]')).toHaveText('350.32 m²')
  await details(page).getByLabel('they reach').selectOption('through')
  await expect(details(page)).toContainText('1 curved wall')
  await details(page).getByRole('button', { name: 'Cancel' }).click()
  await desk(page, 'Form')
  await details(page).getByRole('button', { name: 'Twist' }).click()
  await details(page).getByRole('button', { name: 'Taper' }).click()
  await desk(page, 'Fabric')
  await page.keyboard.press('b')
  await expect(page.locator('[data-off]')).toBeVisible()
  const upright = await page.locator('[data-off]').textContent()
  await details(page).getByLabel('bent faces as').selectOption('facets')
  await expect(page.locator('[data-off]')).not.toHaveText(upright ?? '')
  await details(page).getByLabel('Mass 1, round becomes').selectOption('nothing')
  await expect(details(page)).toContainText('was left out on purpose')
  await verb(page, 'Make building').click()
})
