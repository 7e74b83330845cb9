import { expect, test } from '@playwright/test'
import {
  addStoreys,
  clickAt,
  desk,
  details,
  drawRectangle,
  figure,
  level,
  newProject,
  openDemo,
  typeField,
  verb,
} from './page'

test('a wall is picked on the stage, thickened, turned to the other side and removed; the net area tells; undo brings all of it back', async ({
  page,
}) => {
  await newProject(page, 'Parts')
  await drawRectangle(page, [0, 0], '10', '8', '3')
  await typeField(page, 'east', '0')
  await typeField(page, 'north', '0')
  await desk(page, 'Fabric')
  await verb(page, 'Make building').click()
  await details(page).getByRole('button', { name: 'Make 6 parts' }).click()
  await expect(figure(page, 'net')).toHaveText('70.23 m²')
  await page.getByRole('button', { name: 'Show all' }).click()
  await clickAt(page, '3d', [5, 0, 1.5])
  await expect(details(page).getByText('In line with its face.')).toBeVisible()
  await expect(details(page).getByLabel('name')).toHaveValue(/wall/)
  await details(page).getByLabel('build-up').selectOption({ label: 'Timber wall 350' })
  await expect(figure(page, 'net')).toHaveText('69.57 m²')
  await details(page).getByLabel('lies').selectOption('outside')
  await expect(figure(page, 'net')).not.toHaveText('69.57 m²')
  await details(page).getByRole('button', { name: 'Remove part' }).click()
  await expect(details(page).getByText('wall 3', { exact: true })).toBeVisible()
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z')
  await expect(figure(page, 'net')).toHaveText('70.23 m²')
})

test('the preview shows and lists before anything is made; cancelled, nothing is; with an overhang the roof is larger', async ({
  page,
}) => {
  await openDemo(page)
  await desk(page, 'Fabric')
  await page.keyboard.press('b')
  await expect(details(page).locator('[data-offer="wall"]')).toBeVisible()
  await expect(details(page)).toContainText('87 walls')
  await expect(
    details(page).locator('[data-left-out]').filter({ hasText: 'another mass stands on all of it' }),
  ).toBeVisible()
  const roof = details(page).locator('[data-offer="flat roof"]')
  await expect(roof).toHaveText('973.44 m²')
  await typeField(page, 'roof overhang', '500 mm')
  await expect(roof).not.toHaveText('973.44 m²')
  await details(page).getByText('each part').click()
  await expect(details(page)).toContainText('Lookout, Tenth, wall 4')
  await details(page).getByRole('button', { name: 'Cancel' }).click()
  await expect(details(page)).toContainText('wall 12')
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled()
})

test('repeated clicks on one spot go to what lies behind, with a list of what is there', async ({ page }) => {
  await openDemo(page)
  await desk(page, 'Form')
  await clickAt(page, '3d', [85, 33, 20])
  await expect(details(page).getByLabel('name')).toHaveValue('Lookout')
  const first = await details(page).getByLabel('name').inputValue()
  await page.mouse.down()
  await page.mouse.up()
  await expect(details(page).getByLabel('name')).not.toHaveValue(first)
  await page.getByRole('button', { name: 'Lookout', exact: true }).first().click()
  await expect(details(page).getByLabel('name')).toHaveValue('Lookout')
})

test('a mass that does not take a storey has no floor and no slab there; what is tied to a level that is deleted is named first', async ({
  page,
}) => {
  await newProject(page, 'Takes')
  await drawRectangle(page, [0, 0], '20', '10', '9')
  await addStoreys(page, '2', '3')
  await details(page)
    .getByRole('checkbox', { name: /Storey 1/ })
    .click()
  await expect(figure(page, 'total')).toHaveText('400.00 m²')
  await desk(page, 'Fabric')
  await verb(page, 'Make building').click()
  await expect(details(page)).toContainText('8 walls')
  await expect(details(page)).toContainText('1 floor slab')
  await details(page).getByRole('button', { name: 'Make 11 parts' }).click()
  await level(page, 'Storey 2').click()
  await details(page).getByRole('button', { name: 'Delete level' }).click()
  await expect(page.getByRole('dialog')).toContainText('5 walls and slabs that stand there go too')
  await page.keyboard.press('Escape')
  await expect(level(page, 'Storey 2')).toBeVisible()
})
