import { expect, test, type Page } from '@playwright/test'
import { addStoreys, clickAt, details, drawRectangle, figure, newProject, settled, typeField } from './page'

const add = (page: Page, name: string) => details(page).getByRole('button', { name, exact: true }).click()
const choose = (page: Page, label: string, option: string) =>
  details(page).getByRole('combobox', { name: label, exact: true }).selectOption({ label: option })

test('a loft in place of a raise: its corners are typed; ways of folding are told before one is chosen', async ({
  page,
}) => {
  await newProject(page, 'Form W')
  await addStoreys(page, '2', '3.5')
  await drawRectangle(page, [-13, -9], '26', '18', '10.5')
  await add(page, 'Loft')
  await settled(page)
  const section = details(page).getByRole('group', { name: 'outline 1' })
  await section.locator('summary').click()
  const corner = async (label: string, value: string) => {
    await section.getByRole('textbox', { name: label, exact: true }).fill(value)
    await page.keyboard.press('Enter')
    await settled(page)
  }
  await corner('1 y', '2')
  await corner('2 x', '22')
  await corner('2 y', '5')
  await corner('3 x', '22')
  await corner('3 y', '14')
  const folding = details(page).getByRole('table', { name: 'ways of folding' })
  await expect(folding.getByRole('row', { name: /volume/ })).toContainText('3,862.253,885.003,839.50')
  await expect(figure(page, 'volume')).toContainText('3,862.2')
  await page
    .getByText(/findings?$/)
    .first()
    .click()
  await expect(page.getByText(/2 faces of Mass 1 are not flat.*2\.709 or 2\.947 m.*4\.000 or 3\.738 m/)).toBeVisible()
  await page.keyboard.press('Escape')
  await choose(page, 'if not flat', 'folded, rising right')
  await expect(figure(page, 'volume')).toContainText('3,885')
})

test('a hipped roof, a gable, and a twist behind it; on chosen storeys only', async ({ page }) => {
  await newProject(page, 'Hip')
  await addStoreys(page, '2', '3')
  await drawRectangle(page, [-6, -4], '11.4', '7.8', '3')
  await add(page, 'Hip')
  await typeField(page, 'roof angle', '32')
  await expect(figure(page, 'volume')).toContainText('350.4')
  await details(page).getByRole('button', { name: 'edge', exact: true }).click()
  await choose(page, 'side', 'east side')
  await settled(page)
  await add(page, 'Twist')
  await typeField(page, 'turns by', '20')
  await settled(page)
  const twisted = await figure(page, 'volume').textContent()
  await choose(page, 'acts on', 'chosen storeys')
  await settled(page)
  await expect(figure(page, 'volume')).toHaveText(twisted ?? '')
  await page.keyboard.press('Control+z')
  await settled(page)
})

test('a profile is turned about an axis: what encloses nothing is a finding, and is thickened by it', async ({
  page,
}) => {
  await newProject(page, 'Hopper')
  await drawRectangle(page, [-3, -3], '6', '6', '5')
  await add(page, 'Revolve')
  const point = (n: number) => details(page).getByRole('group', { name: `point ${n}` })
  const set = async (n: number, label: string, value: string) => {
    await point(n).getByRole('textbox', { name: label, exact: true }).fill(value)
    await page.keyboard.press('Enter')
    await settled(page)
  }
  await set(1, 'from the axis', '1.45')
  await set(1, 'up', '-3.9')
  await set(2, 'from the axis', '1.45')
  await set(2, 'up', '2.2')
  await details(page).getByRole('button', { name: 'point', exact: true }).click()
  await set(3, 'from the axis', '4.65')
  await set(3, 'up', '5.4')
  await set(2, 'arc to the next turns by', '-90')
  await details(page).getByRole('button', { name: 'point', exact: true }).click()
  await set(4, 'from the axis', '6')
  await set(4, 'up', '5.4')
  await expect(figure(page, 'volume')).toContainText('91.3')
  await typeField(page, 'turns by', '270')
  await expect(figure(page, 'volume')).toContainText('68.4')
})

test('what is picked is hidden, or shown alone, in this view only; masses are put in line and copied', async ({
  page,
}) => {
  await newProject(page, 'Seeing')
  await drawRectangle(page, [-6, 0], '12', '4', '3')
  await page.keyboard.press('Escape')
  await drawRectangle(page, [-2, -4], '5', '3', '3')
  await expect(figure(page, 'total')).toHaveText('63.00 m²')
  await page.keyboard.press('o')
  await page.keyboard.press('v')
  const all = page.getByRole('button', { name: /^Show all 1/ })
  await expect(all).toBeVisible()
  await expect(figure(page, 'total')).toHaveText('63.00 m²')
  await page.keyboard.press('o')
  await expect(all).toHaveCount(0)
  await page.keyboard.press('v')
  await clickAt(page, 'plan', [-5, 2, 0])
  await clickAt(page, 'plan', [0, -2, 0], { shift: true })
  await choose(page, 'in line by', 'south')
  await details(page).getByRole('button', { name: 'Put in line' }).click()
  await settled(page)
  await details(page).getByRole('button', { name: 'Copy in place' }).click()
  await settled(page)
  await page.keyboard.press('Escape')
  await expect(details(page).getByRole('button', { name: /^Mass 2 2/ })).toBeVisible()
})
