import { expect, test } from '@playwright/test'
import { readFile } from 'node:fs/promises'
import {
  addStoreys,
  desk,
  details,
  drawRectangle,
  figure,
  level,
  newProject,
  openDemo,
  openedVerb,
  saved,
  settled,
  typeField,
  verb,
} from './page'

test('undo and redo take every step back and again, also after closing and reopening the page', async ({
  page,
  context,
}) => {
  await newProject(page, 'Undo')
  await drawRectangle(page, [0, 0], '20', '10', '3')
  await typeField(page, 'width', '30')
  await expect(figure(page, 'total')).toHaveText('300.00 m²')
  await saved(page)
  const address = page.url()
  await page.close()
  const again = await context.newPage()
  await again.goto(address)
  await expect(figure(again, 'total')).toHaveText('300.00 m²')
  await again.keyboard.press('Control+z')
  await expect(figure(again, 'total')).toHaveText('200.00 m²')
  await again.getByRole('button', { name: 'Undo' }).click()
  await expect(figure(again, 'total')).toHaveText('0.00 m²')
  await expect(again.getByRole('button', { name: 'Undo' })).toBeDisabled()
  await again.keyboard.press('Control+y')
  await again.keyboard.press('Control+Shift+z')
  await expect(figure(again, 'total')).toHaveText('300.00 m²')
})

test('two windows on one project follow each other', async ({ page, browser }) => {
  await newProject(page, 'Together')
  const other = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  await other.goto(page.url())
  await expect(figure(other, 'total')).toHaveText('0.00 m²')
  await drawRectangle(page, [0, 0], '20', '10', '3')
  await expect(figure(other, 'total')).toHaveText('200.00 m²')
  await other
    .getByRole('complementary', { name: 'Details' })
    .getByRole('button', { name: /^Mass 1/ })
    .click()
  await typeField(other, 'depth', '12')
  await expect(figure(page, 'total')).toHaveText('240.00 m²')
  await expect(details(page).getByLabel('depth')).toHaveValue('12.000 m')
  await other.context().close()
})

test('what another makes while a level is dragged is in its figures at once, and stays when the drag is undone', async ({
  page,
  browser,
}) => {
  await newProject(page, 'Dragged together')
  await drawRectangle(page, [0, 0], '20', '10', '9')
  await addStoreys(page, '2', '3')
  await expect(figure(page, 'total')).toHaveText('600.00 m²')
  await saved(page)
  const other = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  await other.goto(page.url())
  await expect(figure(other, 'total')).toHaveText('600.00 m²')
  await details(other)
    .getByRole('button', { name: /^Mass 1/ })
    .click()
  await desk(page, 'Slice')
  await settled(page)
  const row = level(page, 'Storey 2')
  const { x = 0, y = 0, height = 0 } = (await row.boundingBox()) ?? {}
  await page.mouse.move(x + 20, y + height / 2)
  await page.mouse.down()
  await page.mouse.move(x + 20, y + height / 2 - 12, { steps: 4 })
  await expect(row).not.toHaveAccessibleName(/\+6\.000/)
  await typeField(other, 'depth', '12')
  await expect(figure(other, 'total')).toHaveText('720.00 m²')
  // The hand has not moved since.
  await expect(figure(page, 'total')).toHaveText('720.00 m²')
  await expect(row).not.toHaveAccessibleName(/\+6\.000/)
  // Over the top there is no floor.
  await page.mouse.move(x + 20, y + height / 2 - 240, { steps: 8 })
  await expect(figure(page, 'total')).toHaveText('480.00 m²')
  await page.mouse.up()
  await expect(figure(other, 'total')).toHaveText('480.00 m²')
  await page.keyboard.press('Control+z')
  await expect(figure(page, 'total')).toHaveText('720.00 m²')
  await expect(row).toHaveAccessibleName(/\+6\.000/)
  await expect(figure(other, 'total')).toHaveText('720.00 m²')
  await expect(details(other).getByLabel('depth')).toHaveValue('12.000 m')
  await other.context().close()
})

test('two people work on one rule: a dial of the one and a step of the other both hold, and each takes back its own', async ({
  page,
  browser,
}) => {
  await newProject(page, 'Ruled together')
  await addStoreys(page, '30', '3.5')
  await desk(page, 'Form')
  await openedVerb(page, 'Rule', 'Tower cluster')
  await expect(figure(page, 'total')).toHaveText('16,434.96 m²')
  await saved(page)
  const other = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  await other.goto(page.url())
  await expect(figure(other, 'total')).toHaveText('16,434.96 m²')
  await details(other)
    .getByRole('button', { name: /^Tower cluster/ })
    .click()
  await settled(other)
  await typeField(page, 'inset', '0.8')
  await expect(figure(page, 'total')).toHaveText('27,996.78 m²')
  await expect(figure(other, 'total')).toHaveText('27,996.78 m²')
  // The other one makes it two columns of its three.
  const columns = details(other)
    .getByRole('listitem', { name: 'step 2', exact: true })
    .getByRole('textbox', { name: 'columns' })
  await columns.fill('2')
  await other.keyboard.press('Enter')
  await expect(details(other)).toContainText('4 bodies')
  await expect(details(page)).toContainText('4 bodies')
  await settled(page)
  // The first takes the dial back: the two columns stay.
  await page.keyboard.press('Control+z')
  await expect(details(page).getByLabel('inset', { exact: true })).toHaveValue('2.300 m')
  await settled(page)
  await expect(details(page)).toContainText('4 bodies')
  const both = await figure(page, 'total').textContent()
  await expect(figure(other, 'total')).toHaveText(both ?? '')
  await other.keyboard.press('Control+z')
  await expect(figure(other, 'total')).toHaveText('16,434.96 m²')
  await expect(figure(page, 'total')).toHaveText('16,434.96 m²')
  await other.context().close()
})

test('a window that nobody sees lets its stream go, and catches up when it is seen again', async ({
  page,
  browser,
}) => {
  await newProject(page, 'Hidden')
  const other = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  await other.goto(page.url())
  await expect(figure(other, 'total')).toHaveText('0.00 m²')
  const hide = (hidden: boolean) =>
    other.evaluate((h) => {
      Object.defineProperty(document, 'hidden', { value: h, configurable: true })
      document.dispatchEvent(new Event('visibilitychange'))
    }, hidden)
  await hide(true)
  await drawRectangle(page, [0, 0], '20', '10', '3')
  await saved(page)
  await expect(figure(other, 'total')).toHaveText('0.00 m²')
  await hide(false)
  await expect(figure(other, 'total')).toHaveText('200.00 m²')
  await other.context().close()
})

test('the project is exported as IFC, CSV and a project file, and comes back in with the same figures', async ({
  page,
}) => {
  await openDemo(page)
  const save = async (format: string) => {
    await verb(page, 'Export').click()
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.locator(`[data-export="${format}"]`).click(),
    ])
    await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click()
    return { path: await download.path(), name: download.suggestedFilename() }
  }
  const ifc = await readFile((await save('ifc')).path, 'utf8')
  expect(ifc).toContain("FILE_SCHEMA(('IFC4'))")
  expect(ifc.match(/=IFCBUILDINGSTOREY\(/g)).toHaveLength(13)
  const csv = await readFile((await save('csv')).path, 'utf8')
  expect(csv).toContain('total,,12548.29')
  const file = await save('geotome')
  expect(file.name).toBe('Kiln Quay.geotome')
  await page.goto('/')
  await page
    .getByLabel('Project file')
    .setInputFiles({ name: file.name, mimeType: 'application/zip', buffer: await readFile(file.path) })
  await expect(figure(page, 'total')).toHaveText('12,548.29 m²')
  await desk(page, 'Fabric')
  await expect(details(page).locator('[data-drifted]')).toHaveCount(5)
})

test('files that are no project files are refused with a sentence, and nothing is stored', async ({
  page,
  request,
}) => {
  await page.goto('/')
  await expect(page.locator('[data-project]').first()).toBeVisible()
  const before = ((await (await request.get('/api/projects')).json()) as unknown[]).length
  const offer = async (name: string, text: string, sentence: RegExp) => {
    await page
      .getByLabel('Project file')
      .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) })
    await expect(page.getByText(sentence).first()).toBeVisible()
  }
  await offer('letter.json', 'Dear builder', /not a project file/)
  await offer('newer.json', '{"format":"geotome","version":99,"project":{}}', /version 99.*Update Geotome/)
  await offer('broken.json', '{"format":"geotome","version":1,"project":{"id":"x"}}', /cannot be read: .* are missing/)
  const huge = await request
    .post('/api/projects/import', {
      data: Buffer.alloc(200 * 1024 * 1024),
      headers: { 'content-type': 'application/octet-stream' },
      timeout: 60_000,
    })
    .then(
      async (r) => ({ status: r.status(), text: await r.text() }),
      () => ({ status: 413, text: 'larger than is taken here' }),
    )
  expect(huge.status).toBe(413)
  expect(huge.text).toContain('larger than is taken here')
  expect(((await (await request.get('/api/projects')).json()) as unknown[]).length).toBe(before)
})
