import { expect, test } from '@playwright/test'
import { addStoreys, clickAt, details, drawRectangle, figure, newProject, openedVerb, settled, typeField } from './page'

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
