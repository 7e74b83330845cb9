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
  settled,
  typeField,
  verb,
} from './page'

test('a lower basement brings all above down where the lowest level is held, and not where the ground is', async ({
  page,
}) => {
  await newProject(page, 'Basement')
  await page.getByRole('button', { name: 'Add several' }).click()
  await page.getByLabel('how many').fill('1')
  await page.getByLabel('each', { exact: true }).fill('-3.2')
  await page.keyboard.press('Enter')
  await addStoreys(page, '3', '3.4')
  await desk(page, 'Slice')
  await level(page, 'Storey 1').first().click()
  const storey = details(page).getByLabel('storey', { exact: true })
  await storey.fill('2.75')
  await page.keyboard.press('Enter')
  const choice = page.getByRole('group', { name: 'What stays' })
  await expect(choice.getByRole('button').nth(0)).toContainText('at 9.750')
  await expect(choice.getByRole('button').nth(1)).toContainText('at 10.200')
  await choice.getByRole('button').nth(0).click()
  await expect(level(page, 'Ground')).toContainText('')
  await expect(page.getByRole('button', { name: /^Ground, -0.450/ })).toBeVisible()
})

test('forty storeys in one entry, each height of its own first; a raised one shows both results before it is made', async ({
  page,
}) => {
  await newProject(page, 'Tower')
  await page.getByRole('button', { name: 'Add several' }).click()
  await page.getByLabel('first heights').fill('0.6, 5.1')
  await page.getByLabel('how many').fill('38')
  await page.getByLabel('each', { exact: true }).fill('3.25')
  await page.getByLabel('named').selectOption({ label: 'Level 01, Level 02' })
  await expect(page.locator('[data-planned]')).toContainText('Level 01 to Level 40 from 0.600 to 129.200')
  await page.getByRole('button', { name: 'Add 40 storeys' }).click()
  await page.getByRole('button', { name: 'Table of levels' }).click()
  const row = page.locator('[data-level-row="Level 03"]')
  await expect(row.getByLabel('height of Level 03')).toHaveValue('8.950')
  await row.getByText('on Level 02').click()
  await page.keyboard.press('Escape')
  await typeField(page, 'height', '9.25')
  const ways = page.getByRole('group', { name: 'Two ways' })
  await expect(ways).toContainText('Level 40 at 129.500')
  await expect(ways).toContainText('Level 40 at 129.200')
  await page.getByRole('button', { name: /^Carry those above/ }).click()
  await expect(page.getByRole('button', { name: /^Level 40, \+129\.500/ })).toBeVisible()
})

test('a storey is its slab, its floor build-up and its clear height; what gives way is asked once', async ({
  page,
}) => {
  await newProject(page, 'Build-up')
  await addStoreys(page, '2', '3.15')
  await desk(page, 'Slice')
  await level(page, 'Ground').click()
  await typeField(page, 'floor', '0.11')
  await page
    .getByRole('group', { name: 'What gives way' })
    .getByRole('button', { name: /^The clear height/ })
    .click()
  await typeField(page, 'slab', '0.22')
  await expect(details(page).getByLabel('clear', { exact: true })).toHaveValue('2.820')
  await typeField(page, 'slab', '0.26')
  await expect(details(page).getByLabel('clear', { exact: true })).toHaveValue('2.780')
  await details(page).getByLabel('gives way').selectOption('storey')
  await typeField(page, 'slab', '0.22')
  await typeField(page, 'slab', '0.26')
  await expect(details(page).getByLabel('storey', { exact: true })).toHaveValue('3.150')
  await expect(details(page).getByRole('img', { name: /clear 2.780 m, slab 0.260 m/ })).toBeVisible()
})

test('heights take sums, other units and the names of levels; a mark changes no figure', async ({ page }) => {
  await newProject(page, 'Names')
  await drawRectangle(page, [0, 0], '10', '8', '6')
  // The ground floor is low under the next one, 0.45 m above it.
  await addStoreys(page, '1', '0.45')
  const total = '80.00 m²'
  await expect(figure(page, 'total')).toHaveText(total)
  await addLevels(page, 'mark 3.65 Eaves')
  await expect(page.getByRole('button', { name: /^Eaves, \+4\.100/ })).toBeVisible()
  await expect(figure(page, 'total')).toHaveText(total)
  await page.getByRole('button', { name: 'Table of levels' }).click()
  const height = page.getByLabel('height of Eaves')
  await height.click()
  await height.fill('Storey 1 + 3.65')
  await expect(page.getByText('= 4.100 m')).toBeVisible()
  await page.keyboard.press('Enter')
  const low = page.getByLabel('height of Storey 1')
  await low.fill('0.45 + 150 mm')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: /^Eaves, \+4\.250/ })).toBeVisible()
})

test('wings: areas by level and wing in the ledger and the table; a mass that spans two counts in one', async ({
  page,
}) => {
  await newProject(page, 'Wings')
  await drawRectangle(page, [0, 0], '10', '8', '6')
  await page.keyboard.press('Escape')
  await page.getByLabel("new wing's name").fill('East')
  await page.keyboard.press('Enter')
  // Drawn around it, the wing takes the mass by its plan; then it is told.
  await page.getByRole('button', { name: 'draw it' }).click()
  for (const p of [
    [-0.5, -0.5],
    [10.5, -0.5],
    [10.5, 8.5],
    [-0.5, 8.5],
  ] as const)
    await clickAt(page, 'plan', [...p, 0])
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-wing="East"]')).toContainText('outline of 4 corners')
  await page.getByRole('button', { name: 'Mass 1' }).click()
  await expect(details(page).getByLabel('wing')).toContainText('by its plan: East')
  await details(page).getByLabel('wing').selectOption({ label: 'East' })
  await page.getByRole('button', { name: 'Table of levels' }).click()
  await expect(page.getByRole('columnheader', { name: 'East' })).toBeVisible()
  await expect(page.locator('[data-level-row="Ground"]')).toContainText('80.00')
  await page.keyboard.press('Escape')
  await desk(page, 'Slice')
  await verb(page, 'Ledger').click()
  await expect(cell(page, 'Ground', 'wing East')).toHaveText('80.00')
})

test('in an elevation a level is dragged by its line, with those above, which Alt holds; a double click adds one there', async ({
  page,
}) => {
  await newProject(page, 'Elevation')
  await drawRectangle(page, [0, 0], '12', '9', '9')
  await addStoreys(page, '2', '3')
  await page.getByRole('button', { name: 'Elevation', exact: true }).click()
  await page.getByRole('button', { name: 'Show all' }).click()
  const label = page.locator('[data-level-label="Storey 1"]')
  const scale = async () =>
    (JSON.parse((await page.locator('[data-pane="elevation"]').getAttribute('data-view')) ?? '{}') as { scale: number })
      .scale
  const drag = async (by: number, alt = false) => {
    const box = await label.boundingBox()
    const [x, y] = [(box?.x ?? 0) + 20, (box?.y ?? 0) + 6]
    await page.mouse.move(x, y)
    await page.mouse.down()
    if (alt) await page.keyboard.down('Alt')
    await page.mouse.move(x, y - (by * (await scale())) / 2)
    await page.mouse.move(x, y - by * (await scale()))
    await page.mouse.up()
    if (alt) await page.keyboard.up('Alt')
  }
  await drag(0.5)
  await expect(page.getByRole('button', { name: /^Storey 1, \+3\.500/ })).toBeVisible()
  await expect(page.getByRole('button', { name: /^Storey 2, \+6\.500/ })).toBeVisible()
  await drag(-0.5, true)
  await expect(page.getByRole('button', { name: /^Storey 1, \+3\.000/ })).toBeVisible()
  await expect(page.getByRole('button', { name: /^Storey 2, \+6\.500/ })).toBeVisible()
  const low = await page.locator('[data-level-line="Ground"] line').first().boundingBox()
  await page.mouse.dblclick((low?.x ?? 0) + (low?.width ?? 0) + 2, (low?.y ?? 0) - 1.2 * (await scale()))
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByLabel('kind')).toHaveValue('mark')
  await dialog.getByLabel('name', { exact: true }).fill('Sill')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: /^Sill, \+1\.[123]00/ })).toBeVisible()
})

test('the level in hand is where the pointer is before its figures are there; Escape puts it back', async ({
  page,
}) => {
  await newProject(page, 'In hand')
  await drawRectangle(page, [0, 0], '12', '9', '9')
  await addStoreys(page, '2', '3')
  await desk(page, 'Slice')
  await settled(page)
  const row = level(page, 'Storey 1')
  const top = async () => (await row.boundingBox())?.y ?? 0
  const before = await top()
  await row.hover()
  await page.mouse.down()
  // In one turn of the page nothing can have been computed.
  const gone = () =>
    row.evaluate((button) => {
      const at = button.getBoundingClientRect()
      const to = { clientX: at.x + 20, clientY: at.y + at.height / 2 - 40, pointerId: 1, bubbles: true }
      button.dispatchEvent(new PointerEvent('pointermove', to))
      return at.y - button.getBoundingClientRect().y
    })
  // The first move takes it in hand.
  await page.mouse.move(40, before - 10)
  await expect(row).not.toHaveAccessibleName(/\+3\.000/)
  expect(await gone()).toBeGreaterThan(20)
  await page.keyboard.press('Escape')
  await expect.poll(top).toBeCloseTo(before, 0)
  await expect(page.getByRole('button', { name: /^Storey 1, \+3\.000/ })).toBeVisible()
  await page.mouse.up()
})

test('a level that is let go is picked before the next key is heard', async ({ page }) => {
  await newProject(page, 'Let go')
  await drawRectangle(page, [0, 0], '12', '9', '9')
  await addStoreys(page, '2', '3')
  await desk(page, 'Slice')
  await settled(page)
  const row = level(page, 'Storey 2')
  const { y = 0, height = 0 } = (await row.boundingBox()) ?? {}
  await page.mouse.move(200, y + height + 2)
  await page.mouse.down()
  await page.mouse.move(200, y + height - 12, { steps: 4 })
  await expect(row).not.toHaveAccessibleName(/\+6\.000/)
  // What is put off until the page has time for it does not come by itself.
  await page.evaluate(() => {
    const later = window.setTimeout
    window.setTimeout = ((work: () => void, ms?: number) => later(work, ms || 60_000)) as typeof setTimeout
  })
  await page.mouse.up()
  await page.keyboard.press('Shift')
  await expect(details(page).getByText('Storey 2')).toBeVisible()
})

test('a second storey at one height is asked about, and both are one floor', async ({ page }) => {
  await newProject(page, 'One height')
  await addLevels(page, '@2.45 First', '@6.1 One')
  await drawRectangle(page, [-5, -5], '10', '10', '9')
  await settled(page)
  await expect(figure(page, 'total')).toContainText('300.00')
  const entry = page.getByLabel('add a level')
  await entry.fill('@2.45 + 3.65 Two')
  await expect(page.locator('[data-planned]')).toContainText('One and Two lie at one height')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog')).toContainText('counted once')
  await page.getByRole('button', { name: 'Add it all the same' }).click()
  await settled(page)
  await expect(figure(page, 'total')).toContainText('300.00')
  await figure(page, 'findings').click()
  await page.getByRole('button', { name: 'Make Two a mark' }).click()
  await settled(page)
  await expect(figure(page, 'findings')).toHaveText('0 findings')
  await page.keyboard.press('Control+z')
  await settled(page)
  await expect(figure(page, 'total')).toContainText('300.00')
})
