import { readFile } from 'node:fs/promises'
import { expect, test } from '@playwright/test'
import {
  cell,
  desk,
  details,
  drawCircle,
  drawRectangle,
  figure,
  openedVerb,
  newProject,
  openCopy,
  openDemo,
  saved,
  typeField,
  verb,
} from './page'

test('a scheme is duplicated, changed, compared in figures, renamed and deleted', async ({ page }) => {
  await newProject(page, 'Two ways')
  await desk(page, 'Form')
  await drawRectangle(page, [0, 0], '20', '10', '3')
  await page.getByRole('button', { name: 'Scheme A' }).click()
  await page.getByRole('button', { name: 'Duplicate Scheme A' }).click()
  await expect(page.locator('[data-scheme]')).toHaveText('Scheme B')
  await page.getByRole('button', { name: 'Mass 1' }).first().click()
  await typeField(page, 'width', '24')
  await expect(figure(page, 'total')).toHaveText('240.00 m²')
  await page.locator('[data-scheme]').click()
  await page.getByLabel('compare with').selectOption({ label: 'Scheme A' })
  await expect(figure(page, 'compare')).toContainText('200.00 m²')
  await expect(page.locator('[data-compare-row="total area, m²"]')).toContainText('+40.00')
  await page.locator('[data-scheme]').click()
  await page.getByRole('button', { name: 'Rename Scheme B' }).click()
  await page.getByLabel('name of Scheme B').fill('Longer')
  await page.keyboard.press('Enter')
  await page.getByRole('menuitemradio', { name: 'Scheme A' }).click()
  await expect(figure(page, 'total')).toHaveText('200.00 m²')
  await page.locator('[data-scheme]').click()
  await page.getByRole('button', { name: 'Delete Longer' }).click()
  await page.getByRole('button', { name: 'Delete the scheme' }).click()
  await page.locator('[data-scheme]').click()
  await expect(page.getByRole('menuitemradio')).toHaveCount(1)
})

test('the demo has a second scheme around a court, and kept views that say themselves what they show', async ({
  page,
}) => {
  await openCopy(page, 'Quay, views')
  await page.locator('[data-scheme]').click()
  await page.getByRole('menuitemradio', { name: 'Around a court' }).click()
  await expect(figure(page, 'total')).toHaveText('13,269.01 m²')
  await page.locator('[data-scheme]').click()
  await page.getByRole('menuitemradio', { name: 'Two bars' }).click()
  await page.keyboard.press('v')
  const views = page.getByRole('region', { name: 'Views' })
  await views.locator('[data-kept="Fabric in its forms"]').getByRole('button', { name: 'open' }).click()
  await expect(page.getByRole('navigation', { name: 'Desks' }).getByRole('link', { name: 'Fabric' })).toHaveAttribute(
    'aria-current',
    'page',
  )
  await expect(views.getByRole('combobox', { name: /^forms/ })).toHaveValue('see-through')
  // What is changed on the stage changes no kept view.
  await views.getByRole('combobox', { name: /^forms/ }).selectOption('hidden')
  await views.locator('[data-kept="From the water"]').getByRole('button', { name: 'open' }).click()
  await expect(views.getByLabel('materials')).toBeChecked()
  await views.locator('[data-kept="Fabric in its forms"]').getByRole('button', { name: 'open' }).click()
  await expect(views.getByRole('combobox', { name: /^forms/ })).toHaveValue('see-through')
  await views.getByRole('button', { name: 'Keep this view' }).click()
  await expect(views.locator('[data-kept]')).toHaveCount(5)
  await saved(page)
  const download = page.waitForEvent('download')
  await views.getByRole('button', { name: 'Picture of Cut at the second floor' }).click()
  // The sheet is filled in and accepted by keyboard: its first field has the focus.
  await expect(page.getByLabel('width in pixels')).toBeFocused()
  for (const key of ['Control+a', '1080', 'Tab', 'Control+a', '1080', 'Enter'])
    if (key === '1080') await page.keyboard.type(key)
    else await page.keyboard.press(key)
  const file = await readFile(await (await download).path())
  expect([file.readUInt32BE(16), file.readUInt32BE(20)]).toEqual([1080, 1080])
  expect(file.length).toBeGreaterThan(20_000)
})

test('a restore point is kept, opened beside the present, and brought back whole; undo returns', async ({
  page,
  context,
}) => {
  await newProject(page, 'Moments')
  await desk(page, 'Form')
  await drawRectangle(page, [0, 0], '20', '10', '3')
  await saved(page)
  await page.getByRole('button', { name: 'Restore points' }).click()
  await page.getByLabel('name of the moment').fill('Before the change')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.locator('[data-point="Before the change"]')).toContainText('nothing changed since')
  await page.getByRole('button', { name: 'Close' }).click()
  await typeField(page, 'width', '30')
  await expect(figure(page, 'total')).toHaveText('300.00 m²')
  await saved(page)
  await page.getByRole('button', { name: 'Restore points' }).click()
  const opened = context.waitForEvent('page')
  await page.getByRole('link', { name: 'Open beside' }).click()
  const past = await opened
  await expect(past.locator('footer [data-figure="total"]')).toHaveText('200.00 m²')
  await expect(past.getByText('A moment of the past')).toBeVisible()
  await past.close()
  await page.getByRole('button', { name: 'Bring back' }).click()
  await expect(figure(page, 'total')).toHaveText('200.00 m²')
  await saved(page)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(figure(page, 'total')).toHaveText('300.00 m²')
})

test('Ctrl K finds actions, levels and masses', async ({ page }) => {
  await openDemo(page)
  await page.keyboard.press('Control+k')
  await page.getByPlaceholder('Find an action').fill('ferry hall')
  await page.keyboard.press('Enter')
  await expect(details(page).getByLabel('name')).toHaveValue('Ferry hall')
  await page.keyboard.press('Control+k')
  await page.getByPlaceholder('Find an action').fill('Seventh')
  await page.keyboard.press('Enter')
  await expect(details(page)).toContainText('Seventh')
  await page.keyboard.press('Control+k')
  await expect(page.getByPlaceholder('Find an action')).toBeFocused()
  await page.keyboard.type('Make building')
  await page.keyboard.press('Enter')
  await expect(details(page)).toContainText('Building from faces')
})

test('a finding is left with a reason, and looked at again', async ({ page }) => {
  await openCopy(page, 'Quay, findings')
  await page.keyboard.press('n')
  const row = page.locator('[data-finding="over the envelope"]')
  await row.getByRole('button', { name: 'leave it' }).click()
  await row.getByLabel('why it is left').fill('the lantern is exempt')
  await page.keyboard.press('Enter')
  await expect(figure(page, 'findings')).toContainText('7 findings')
  await page.getByText('1 looked at and left').click()
  await expect(row).toContainText('the lantern is exempt')
  await row.getByRole('button', { name: 'Look again' }).click()
  await expect(figure(page, 'findings')).toContainText('8 findings')
})

test('forms are written as OBJ, read in again as bodies, and give the same ledger', async ({ page }) => {
  await newProject(page, 'There and back')
  await desk(page, 'Form')
  await drawCircle(page, '6.3', '6')
  await saved(page)
  await desk(page, 'Slice')
  await verb(page, 'Export').click()
  const download = page.waitForEvent('download')
  await page.locator('[data-export="obj"]').click()
  const path = await (await download).path()
  const bytes = await readFile(path)
  await page.getByRole('button', { name: 'Close' }).click()
  await desk(page, 'Form')
  await page.keyboard.press('Delete')
  await expect(figure(page, 'total')).toHaveText('0.00 m²')
  await openedVerb(page, 'Outline', 'A body from a file')
  await page.getByLabel('File with bodies').setInputFiles({ name: 'hall.obj', mimeType: 'model/obj', buffer: bytes })
  await expect(page.locator('[data-read]')).toContainText('1 body')
  await page.getByRole('button', { name: 'Bring in 1' }).click()
  await expect(figure(page, 'total')).toHaveText('124.69 m²')
  await page.keyboard.press('l')
  await expect(cell(page, 'Ground', 'area')).toHaveText('124.69')
  await page.getByRole('region', { name: 'ledger' }).getByRole('button', { name: 'Close' }).click()
  await details(page).getByLabel('it is').selectOption('context')
  await expect(figure(page, 'total')).toHaveText('0.00 m²')
  await openedVerb(page, 'Outline', 'A body from a file')
  await page
    .getByLabel('File with bodies')
    .setInputFiles({ name: 'notes.txt', mimeType: 'text/plain', buffer: Buffer.from('hello') })
  await expect(page.getByRole('alert')).toContainText('no file that bodies are read from')
})

test('an IFC of a whole building asks what to take of it: forms, parts or spaces', async ({ page }) => {
  test.setTimeout(120_000)
  await openCopy(page, 'Quay, out and in')
  await verb(page, 'Export').click()
  const download = page.waitForEvent('download')
  await page.locator('[data-export="ifc-forms"]').click()
  const bytes = await readFile(await (await download).path())
  await page.getByRole('button', { name: 'Close' }).click()
  await desk(page, 'Form')
  await openedVerb(page, 'Outline', 'A body from a file')
  const file = { name: 'quay.ifc', mimeType: 'application/x-step', buffer: bytes }
  await page.getByLabel('File with bodies').setInputFiles(file)
  await expect(page.locator('[data-read]')).toContainText('8 bodies')
  const asked = page.locator('[data-ask="take"]')
  await expect(asked).toContainText('may be the same volume twice')
  await expect(asked.getByRole('combobox')).toHaveValue('forms')
  await asked.getByRole('combobox').selectOption('context')
  await expect(page.locator('[data-read]')).not.toContainText('8 bodies')
  await asked.getByRole('combobox').selectOption('forms')
  await page.getByRole('button', { name: 'Bring in 8' }).click()
  // Each form stands on the one that it was made from: floor that both have counts once.
  await expect(figure(page, 'total')).toHaveText('12,548.29 m²')
})

test('drifted parts are kept, let go, and one attached to another face; build-ups are exchanged with the number named', async ({
  page,
}) => {
  await openCopy(page, 'Quay, parts')
  await desk(page, 'Fabric')
  await expect(details(page).locator('[data-drifted]')).toHaveCount(5)
  await details(page).getByLabel('mark Stepped homes 1, parapet 1').check()
  await details(page).getByRole('button', { name: 'Keep 1' }).click()
  await expect(details(page).locator('[data-drifted]')).toHaveCount(4)
  await details(page).getByLabel('mark Stepped homes 1, terrace 1').check()
  await details(page).getByRole('button', { name: 'Let 1 go' }).click()
  await expect(details(page).locator('[data-drifted]')).toHaveCount(3)
  await details(page)
    .getByRole('button', { name: /Stepped homes 1, Quay, wall 2/ })
    .first()
    .click()
  await details(page).getByRole('button', { name: 'Attach to another face' }).click()
  await details(page)
    .getByRole('list', { name: 'Faces it could stand on, the likeliest first' })
    .getByRole('button')
    .first()
    .click()
  await expect(details(page).locator('[data-bond="bonded"]')).toBeVisible()
  await details(page).getByLabel('exchange for').selectOption('storey')
  await details(page)
    .getByLabel(/^build-up/)
    .selectOption({ label: 'Timber wall 350' })
  const exchange = details(page).getByRole('button', { name: /Exchange \d+ walls for Timber wall 350/ })
  const count = Number(/\d+/.exec((await exchange.textContent()) ?? '')?.[0])
  expect(count).toBeGreaterThan(4)
  await exchange.click()
  await expect(details(page).getByRole('button', { name: 'All are Timber wall 350' })).toBeVisible()
})

test('before a change is made it is said what follows and what drifts', async ({ page }) => {
  await openDemo(page)
  await desk(page, 'Form')
  await page.getByRole('button', { name: 'Market hall' }).first().click()
  const height = details(page).getByLabel('eaves height')
  await height.click()
  await height.fill('7')
  await expect(page.locator('[data-dependents]')).toContainText('would drift')
  await page.keyboard.press('Escape')
  await expect(page.locator('[data-dependents]')).toHaveCount(0)
})
