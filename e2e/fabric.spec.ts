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
  openedVerb,
  newProject,
  openDemo,
  typeField,
  verb,
} from './page'

/** The boat shed: a gabled block and a gabled porch joined to its long side. */
async function boatShed(page: Parameters<typeof newProject>[0]): Promise<void> {
  await newProject(page, 'Boat shed')
  await addLevels(page, '2.85 Level 1')
  await level(page, 'Ground').click()
  for (const [width, depth, eaves, east, north, ridge, direction] of [
    ['9.6', '16.4', '5.70', '0', '0', '9.061 m', '0'],
    ['4.8', '5.2', '2.85', '9.6', '5.6', '4.671 m', '90'],
  ] as const) {
    await drawRectangle(page, [2, 2], width, depth, eaves)
    await typeField(page, 'east', east)
    await typeField(page, 'north', north)
    await openedVerb(page, 'Roof', 'Pitch')
    await typeField(page, 'ridge direction', direction)
    await expect(page.locator('[data-figure="ridge"]')).toHaveText(ridge)
    await page.keyboard.press('Escape')
  }
  await details(page)
    .getByRole('button', { name: /^Mass 1/ })
    .click()
  await page.getByRole('button', { name: 'Show all' }).click()
  await page.keyboard.press('Escape')
  await clickAt(page, 'plan', [2, 3, 0])
  await expect(details(page).getByLabel('name')).toHaveValue('Mass 1')
  await clickAt(page, 'plan', [12, 8, 0], { shift: true })
  await openedVerb(page, 'Combine', 'Join')
  await expect(details(page).getByText('joined:')).toBeVisible()
}

test('the boat shed gives eight walls below and four above, and the figures of the trade', async ({ page }) => {
  await boatShed(page)
  await desk(page, 'Slice')
  await verb(page, 'Ledger').click()
  await expect(cell(page, 'Ground', 'area')).toHaveText('182.40')
  await expect(cell(page, 'Level 1', 'area')).toHaveText('157.44')
  await expect(cell(page, 'Level 1', 'low')).toHaveText('24.96')
  await desk(page, 'Fabric')
  await page.getByRole('button', { name: 'Close' }).click()
  await verb(page, 'Make building').click()
  await expect(details(page).locator('[data-offer="wall"]')).toBeVisible()
  await expect(details(page)).toContainText('12 walls')
  await expect(details(page)).toContainText('4 roof slopes')
  await expect(details(page).locator('[data-left-out]').first()).toContainText('roof space')
  await details(page)
    .getByRole('button', { name: /^Make \d+ parts/ })
    .click()
  await expect(details(page)).toContainText('wall 12')
  await verb(page, 'Ledger').click()
  await expect(cell(page, 'Ground', 'net')).toHaveText('165.47')
  await expect(cell(page, 'Level 1', 'net')).toHaveText('143.19')
  await page.getByRole('button', { name: 'Close' }).click()

  // The storey grows: what is tied to the level follows, and nothing drifts.
  await level(page, 'Level 1').click()
  await typeField(page, 'height', '3')
  await expect(level(page, 'Level 1')).toHaveAccessibleName(/3\.00/)
  await expect(figure(page, 'findings')).not.toContainText('drifted')
  await page.keyboard.press('Escape')

  // The wall gets thicker: the gross area stays, the net shrinks.
  await level(page, 'Ground').click()
  await expect(details(page).locator('[data-figure="level-net"]')).toHaveText('165.47')
  await page.keyboard.press('Escape')
  await details(page).getByText('Brick wall 280').click()
  await typeField(page, 'thickness 3', '170 mm')
  await expect(details(page).getByText('350 mm')).toHaveCount(2)
  await level(page, 'Ground').click()
  await expect(details(page).locator('[data-figure="plate"]')).toContainText('182.40')
  await expect(details(page).locator('[data-figure="level-net"]')).not.toHaveText('165.47')
})

test('a changed form lists what has drifted, and one action brings it in line', async ({ page }) => {
  await newProject(page, 'Drift')
  await drawRectangle(page, [0, 0], '12', '9', '6')
  await addStoreys(page, '1', '3')
  await desk(page, 'Fabric')
  await verb(page, 'Make building').click()
  await details(page).getByRole('button', { name: 'Make 11 parts' }).click()
  await expect(figure(page, 'findings')).toHaveText('0 findings')
  await desk(page, 'Form')
  await page.keyboard.press('Escape')
  await details(page)
    .getByRole('button', { name: /^Mass 1/ })
    .click()
  await typeField(page, 'width', '13')
  // East moves, south and north are reshaped on both storeys; two slabs and the roof follow; west stays.
  await expect(figure(page, 'findings')).toContainText('9 drifted')
  await desk(page, 'Fabric')
  await page.keyboard.press('Escape')
  await expect(details(page).locator('[data-drifted]')).toHaveCount(9)
  await details(page).getByRole('button', { name: 'Bring 9 in line' }).click()
  await expect(figure(page, 'findings')).toHaveText('0 findings')
})

test('the demo shows its drifted part, and a floor clicked in the spine', async ({ page }) => {
  await openDemo(page)
  await expect(figure(page, 'findings')).toContainText('5 drifted')
  await level(page, 'Fourth').click()
  await expect(details(page).locator('[data-figure="plate"]')).toContainText('973.44')
  await expect(page.locator('[data-pane="3d"] [data-label]').filter({ hasText: 'homes 829.44' })).toBeVisible()
  await level(page, 'Mezzanine').click()
  await expect(details(page).locator('[data-figure="plate"]')).toContainText('552.96')
})
