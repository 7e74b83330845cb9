import { expect, test } from '@playwright/test'
import {
  addStoreys,
  clickAt,
  desk,
  details,
  drawRectangle,
  figure,
  newProject,
  openedVerb,
  pixel,
  settled,
  typeField,
} from './page'

test('a mass is repeated round a centre and up the storeys; exceptions are kept, one is detached, all follow the original', async ({
  page,
}) => {
  await newProject(page, 'Repeats')
  await addStoreys(page, '10', '3')
  await drawRectangle(page, [8, -1.5], '4', '3', '3')
  await settled(page)
  await openedVerb(page, 'Combine', 'Repeat round a centre')
  await settled(page)
  await typeField(page, 'in all', '14')
  await typeField(page, 'centre east', '0')
  await typeField(page, 'north', '0')
  await typeField(page, 'every how many-th', '2')
  await details(page).getByRole('combobox', { name: 'goes up' }).selectOption({ label: 'the storeys' })
  await typeField(page, 'each storey later by', '1')
  await settled(page)
  await expect(details(page)).toContainText('76 bodies')
  await expect(figure(page, 'total')).toContainText('924.00')
  await page.locator('[data-fit]').click()
  // Two places on, counter-clockwise: the middle of the third of fourteen.
  const a = (2 * 2 * Math.PI) / 14
  await clickAt(page, 'plan', [10 * Math.cos(a), 10 * Math.sin(a), 0])
  await expect(details(page).getByText('3, Ground')).toBeVisible()
  await details(page).getByRole('button', { name: 'Leave it out' }).click()
  await settled(page)
  await expect(figure(page, 'total')).toContainText('912.00')
  await details(page).getByRole('button', { name: 'Take back' }).click()
  await settled(page)
  await expect(figure(page, 'total')).toContainText('924.00')
  await clickAt(page, 'plan', [10 * Math.cos(a), 10 * Math.sin(a), 0])
  await details(page).getByRole('button', { name: 'Detach it' }).click()
  await settled(page)
  await expect(details(page)).toContainText('75 bodies')
  await details(page)
    .getByRole('button', { name: /Pick the original/ })
    .click()
  await typeField(page, 'width', '5')
  await settled(page)
  // 76 of 15 m2, and the one that is its own.
  await expect(figure(page, 'total')).toContainText('1,152.00')
  await page.keyboard.press('Control+z')
  await expect(figure(page, 'total')).toContainText('924.00')
})

test('one of a row is dragged: all stand farther apart, in the direction that it is led to', async ({ page }) => {
  await newProject(page, 'Row dragged')
  await addStoreys(page, '1', '3')
  await desk(page, 'Form')
  await drawRectangle(page, [0, 0], '4', '3', '3')
  await settled(page)
  await openedVerb(page, 'Combine', 'Repeat along a line')
  await settled(page)
  await typeField(page, 'in all', '3')
  await typeField(page, 'apart', '6')
  await settled(page)
  await page.locator('[data-fit]').click()
  await settled(page)
  // The second, picked, then led from its middle 2 m on and 6 up: 10 m from the first, at 36.87 degrees.
  await clickAt(page, 'plan', [8, 1.5, 0])
  const [a, b] = [await pixel(page, 'plan', [8, 1.5, 0]), await pixel(page, 'plan', [10, 7.5, 0])]
  await page.mouse.move(a.x, a.y)
  await page.mouse.down()
  await page.mouse.move((a.x + b.x) / 2, (a.y + b.y) / 2, { steps: 4 })
  await page.mouse.move(b.x, b.y)
  await page.mouse.up()
  await settled(page)
  await expect(details(page).getByLabel('apart', { exact: true })).toHaveValue('10.000 m')
  await expect(details(page).getByLabel('running to', { exact: true })).toHaveValue(/53\.13/)
  await page.keyboard.press('Control+z')
  await settled(page)
  await expect(details(page).getByLabel('apart', { exact: true })).toHaveValue('6.000 m')
  // One of them has a move of its own: tapered to 0.8 it has 29.28 of 36 m3; taken back, it is like the others.
  await expect(figure(page, 'volume')).toContainText('108.00')
  await details(page).getByRole('combobox', { name: 'of its own' }).selectOption({ label: 'taper' })
  await settled(page)
  await expect(figure(page, 'volume')).toContainText('101.28')
  await expect(details(page)).toContainText('moves of its own')
  await typeField(page, 'height', '6')
  await settled(page)
  await expect(figure(page, 'volume')).toContainText('130.56')
  await details(page).getByRole('button', { name: 'Take back' }).click()
  await settled(page)
  await expect(figure(page, 'volume')).toContainText('108.00')
})
