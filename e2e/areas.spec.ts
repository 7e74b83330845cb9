import { readFile } from 'node:fs/promises'
import { unzipSync, strFromU8 } from 'fflate'
import { expect, test, type Page } from '@playwright/test'
import {
  addStoreys,
  cell,
  desk,
  details,
  drawRectangle,
  figure,
  newProject,
  openCopy,
  pixel,
  saved,
  settled,
  typeField,
} from './page'

/** A bar of five storeys, 40 by 12. */
async function bar(page: Page, name: string): Promise<void> {
  await newProject(page, name)
  await desk(page, 'Form')
  await addStoreys(page, '4', '3')
  await drawRectangle(page, [0, 0], '40', '12', '15')
  await expect(figure(page, 'total')).toHaveText('2,400.00 m²')
}

test('the ledger is put together, sorted, filtered, opened to how a figure came to be, and written', async ({
  page,
}) => {
  await openCopy(page, 'Quay, ledger')
  await desk(page, 'Slice')
  await page.keyboard.press('l')
  const ledger = page.locator('[data-ledger]')
  await expect(ledger.locator('[data-cell="total-area"]')).toHaveText('12,548.29')
  await ledger.getByRole('button', { name: 'area', exact: true }).click()
  await expect(ledger.locator('tbody tr[data-row]').first()).toHaveAttribute('data-row', 'Quay')
  await ledger.getByLabel('only rows with').fill('fi')
  await expect(ledger.locator('tbody tr[data-row]')).toHaveCount(2)
  await ledger.getByLabel('only rows with').fill('')
  // Walked by the keyboard, each plate is lit up where it lies.
  await cell(page, 'First', 'area').getByRole('button').click()
  const account = page.locator('[data-account]')
  await expect(account.locator('[data-account-item]')).toHaveCount(4)
  await expect(account.locator('[data-account-total]')).toHaveText('1,854.72 m²')
  await account.locator('[data-account-item]').first().focus()
  await page.keyboard.press('ArrowDown')
  await expect(account.locator('[data-account-item]').nth(1)).toBeFocused()
  await account.getByLabel('Close how it came to be').click()
  await ledger.getByLabel('the ledger by').selectOption('use')
  await expect(ledger.locator('[data-row="homes"] [data-cell="area"]')).toHaveText('8,264.88')
  await ledger.getByLabel('the ledger by').selectOption('scheme')
  await expect(ledger.locator('[data-row="Kiln cluster"] [data-cell="area"]')).toHaveText('12,701.63')
  await ledger.getByLabel('the ledger by').selectOption('use')
  const file = page.waitForEvent('download')
  await ledger.getByRole('button', { name: 'XLSX' }).click()
  const sheet = unzipSync(new Uint8Array(await readFile(await (await file).path())))
  expect(strFromU8(sheet['xl/worksheets/sheet1.xml'] as Uint8Array)).toContain('<v>8264.88</v>')
  await ledger.getByRole('button', { name: 'Charts' }).click()
  await expect(page.getByLabel('shares of uses')).toContainText('65.9 %')
})

test('a brief is pasted and read line by line; what cannot be read is named by its cell', async ({ page }) => {
  await bar(page, 'Brief')
  await desk(page, 'Slice')
  await page.keyboard.press('w')
  const brief = page.locator('[data-brief]')
  await brief.getByRole('button', { name: 'Paste a table' }).click()
  await brief.getByLabel('the table').fill('homes\tmany\nheight\t14\t\tat most')
  await brief.getByRole('button', { name: 'Read it' }).click()
  await expect(brief.getByRole('alert')).toContainText('B1 "many" is no area')
  await brief.getByLabel('the table').fill('homes\t3,000\t5 %\nflats, homes\t30\t\tat least\t70\nheight\t14\t\tat most')
  await brief.getByRole('button', { name: 'Read it' }).click()
  const line = (name: string) => brief.locator(`[data-brief-line="${name}"]`)
  await expect(line('homes').locator('[data-said]')).toHaveText('450.00 m² short')
  await expect(line('flats').locator('[data-now]')).toHaveText('34')
  await expect(line('flats')).toHaveAttribute('data-state', 'met')
  await expect(line('height').locator('[data-said]')).toHaveText('1.000 m over')
  await brief.getByLabel('target of height').fill('16')
  await page.keyboard.press('Enter')
  await expect(line('height')).toHaveAttribute('data-state', 'met')
  await expect(figure(page, 'findings')).toHaveText('1 finding')
  await expect(figure(page, 'brief')).toHaveText('brief2 of 3')
  await brief.getByLabel('changes since').selectOption('last')
  await expect(line('homes').locator('[data-since]')).toHaveText('as then')
  await brief.getByRole('button', { name: 'Over the last edits' }).click()
  await expect(brief.getByLabel('figure over the last edits')).toBeVisible()
  await brief.getByText('the same as a table').click()
  await expect(page.getByRole('region', { name: 'over the last edits' }).locator('tr').first()).toContainText(
    '2,400.00 m²',
  )
  await brief.getByLabel('over which edits').selectOption('today')
  await expect(page.getByRole('region', { name: 'over the last edits' }).locator('tr').first()).toContainText(
    /^\d\d:\d\d.*2,400\.00 m²$/,
  )
  await page.keyboard.press('Control+z')
  await expect(line('height')).toHaveAttribute('data-state', 'over')
  await saved(page)
})

test('a target is met: shown on the stage first, and made when it is accepted', async ({ page }) => {
  await bar(page, 'Target')
  await desk(page, 'Slice')
  // Nothing is picked, so that the details are those of the level.
  await page.keyboard.press('Escape')
  await page.keyboard.press('z')
  const target = page.locator('[data-target]')
  await target.getByLabel('first figure: value').fill('3150')
  await target.getByLabel('first figure: what moves').selectOption({ label: 'Mass 1, width' })
  await target.getByRole('button', { name: 'Seek' }).click()
  await expect(target.locator('[data-found]')).toContainText('Mass 1, width 52.500 m gives 3,150.00 m².')
  await expect(figure(page, 'total')).toHaveText('3,150.00 m²')
  await expect(details(page).locator('[data-plate="Mass 1"]')).toContainText('630.00 m²')
  // The stage shows what was found; what is made is as it was.
  await expect(target).toContainText('now 40.000 m')
  await target.getByRole('button', { name: 'Leave it' }).click()
  await expect(figure(page, 'total')).toHaveText('2,400.00 m²')
  await target.getByLabel('first figure: value').fill('3000')
  await target.getByLabel('first figure: bound').selectOption('least')
  await target.getByLabel('first figure: what moves').selectOption({ label: 'storeys Mass 1' })
  await target.getByRole('button', { name: 'Seek' }).click()
  await expect(target.locator('[data-found]')).toContainText('Storeys Mass 1 7 gives 3,360.00 m²; 6 gives 2,880.00 m².')
  await target.getByRole('button', { name: 'Apply', exact: true }).click()
  await settled(page)
  await expect(figure(page, 'total')).toHaveText('3,360.00 m²')
  await page.keyboard.press('Control+z')
  await expect(figure(page, 'total')).toHaveText('2,400.00 m²')
  await target.getByLabel('first figure: value').fill('99000')
  await target.getByRole('button', { name: 'Seek' }).click()
  await expect(target.locator('[data-found]')).toContainText('out of reach')
})

test('a shaft is a void, a part of a plate is left out, storeys have another use', async ({ page }) => {
  await bar(page, 'Plates')
  await drawRectangle(page, [4, 4], '3', '2', '13')
  await details(page).getByLabel('it is').selectOption('void')
  await expect(figure(page, 'total')).toHaveText('2,370.00 m²')
  await page.keyboard.press('Escape')
  await details(page)
    .getByRole('button', { name: /^Mass 1/ })
    .first()
    .click()
  await details(page).getByRole('button', { name: 'Storeys that differ' }).click()
  await details(page).getByLabel('use 1', { exact: true }).selectOption({ label: 'market' })
  await desk(page, 'Slice')
  await page.keyboard.press('l')
  await expect(page.locator('[data-cell="total-use market"]')).toHaveText('474.00')
  await expect(page.locator('[data-cell="void Mass 2"]')).toHaveText('30.00 m²')
  await page.keyboard.press('l')
  await page.getByRole('button', { name: 'Plate', exact: true }).click()
  await page.getByRole('menuitem', { name: 'Set in by a metre' }).click()
  await settled(page)
  await expect(figure(page, 'change')).toHaveText('-100.00')
  await details(page).locator('[data-plate-change] summary').click()
  await typeField(page, 'set in by', '2')
  await settled(page)
  await expect(figure(page, 'total')).toHaveText('2,178.00 m²')
})

test('a sheet leaves in sight what was seen on the stage, and what is looked at since stays', async ({ page }) => {
  await bar(page, 'In sight')
  await page.keyboard.press('Escape')
  await desk(page, 'Slice')
  await settled(page)
  const view = async (pane: string) => {
    const { size: _, ...look } = JSON.parse(
      (await page.locator(`[data-pane="${pane}"]`).getAttribute('data-view')) ?? '{}',
    ) as { size: number[]; scale: number }
    return look
  }
  const before = await view('3d')
  await page.keyboard.press('l')
  await expect.poll(() => view('3d')).not.toEqual(before)
  for (const corner of [
    [0, 0, 15],
    [40, 12, 15],
    [40, 0, 0],
  ] as [number, number, number][]) {
    const at = await pixel(page, '3d', corner)
    const box = await page.locator('[data-pane="3d"]').boundingBox()
    expect(at.y).toBeGreaterThan((box?.y ?? 0) + 40)
    expect(at.y).toBeLessThan((box?.y ?? 0) + (box?.height ?? 0))
  }
  await page.keyboard.press('l')
  await expect.poll(() => view('3d')).toEqual(before)
  await page.keyboard.press('l')
  await expect.poll(() => view('3d')).not.toEqual(before)
  const { x, y } = await pixel(page, '3d', [20, 6, 0])
  await page.mouse.move(x, y)
  await page.mouse.wheel(0, -400)
  await expect.poll(async () => (await view('3d')).scale).toBeGreaterThan(before.scale)
  const near = await view('3d')
  await page.keyboard.press('l')
  await expect(page.locator('[data-ledger]')).toHaveCount(0)
  await settled(page)
  expect(await view('3d')).toEqual(near)
})

test('uses have a pattern and a share that is net of their own, where areas are read', async ({ page }) => {
  await bar(page, 'Uses')
  await page.keyboard.press('Escape')
  await desk(page, 'Slice')
  await page.keyboard.press('l')
  await expect(page.locator('[data-ledger] thead [data-pattern]').first()).toHaveAttribute('data-pattern', 'plain')
  await details(page).getByRole('button', { name: 'homes', exact: true }).click()
  await page.getByRole('group', { name: 'pattern of homes' }).getByRole('button', { name: 'woven' }).click()
  await expect(page.locator('[data-ledger] thead [data-pattern]').first()).toHaveAttribute('data-pattern', 'woven')
  await typeField(page, 'net over internal', '0.8')
  await details(page).getByRole('button', { name: 'Tell internal floor before walls stand' }).click()
  await settled(page)
  // 39.2 x 11.2 on five storeys, and 80 % of it.
  await expect(page.locator('[data-cell="total-internal"]')).toHaveText('2,195.20')
  await expect(page.locator('[data-cell="total-usable"]')).toHaveText('1,756.16')
})

test('two schemes that differ by an arm: painted level by level, and brought over', async ({ page }) => {
  await bar(page, 'Arm')
  await page.getByRole('button', { name: 'Scheme A' }).click()
  await page.getByRole('button', { name: 'Duplicate Scheme A' }).click()
  await expect(page.locator('[data-scheme]')).toHaveText('Scheme B')
  await drawRectangle(page, [40, 2], '8', '7.2', '9')
  await expect(figure(page, 'total')).toHaveText('2,572.80 m²')
  await page.locator('[data-scheme]').click()
  await page.getByRole('menuitemradio', { name: 'Scheme A' }).click()
  await page.locator('[data-scheme]').click()
  await page.getByLabel('compare with').selectOption({ label: 'Scheme B' })
  await expect(page.locator('[data-difference-total]')).toContainText('172.80 m²')
  await expect(page.locator('[data-difference]')).toHaveCount(3)
  const bring = page.getByRole('region', { name: 'bring over' })
  await bring.getByLabel(/Mass 2/).check()
  await bring.getByRole('button', { name: 'Bring over' }).click()
  await expect(figure(page, 'total')).toHaveText('2,572.80 m²')
  await expect(page.getByText('All floors are the same in plan.')).toBeVisible()
})

test('schemes stand side by side in step, one is put aside, and all are on one page', async ({ page }) => {
  await openCopy(page, 'Quay, side by side')
  await desk(page, 'Slice')
  await page.getByRole('button', { name: 'Schemes', exact: true }).click()
  await expect(page.locator('[data-beside="4"]')).toBeVisible()
  const pane = (name: string) => page.locator(`[data-scheme-pane="${name}"]`)
  await expect(pane('Around a court').locator('[data-pane-total]')).toHaveText('13,269.01 m²')
  await expect(pane('Kiln cluster')).toContainText('meets the brief')
  await expect(pane('By hand')).toContainText('misses homes, flats')
  await pane('By hand').getByRole('button', { name: 'By hand' }).click()
  await expect(page.locator('[data-scheme]')).toHaveText('By hand')
  await page.locator('[data-scheme]').click()
  await page.getByLabel('compare with').selectOption({ label: 'all others' })
  const row = page.locator('[data-all-schemes="4"] [data-scheme-row="floor area"]')
  await expect(row.getByRole('cell').first()).toHaveText('6,736.27 m²')
  await expect(row).toContainText('13,269.01 m²+6,532.74')
  await page.locator('[data-scheme]').click()
  await page.getByRole('button', { name: 'Put Around a court aside' }).click()
  await page.getByRole('link', { name: 'All on one page' }).click()
  await expect(page.locator('[data-summary-of]')).toHaveCount(3)
  await expect(page.locator('[data-summary-of="Two bars"]')).toContainText('12,548.29 m²')
  await expect(page.locator('[data-summary-of="Two bars"] [data-brief-said]')).toHaveText('height 2.100 m over')
  await page.getByRole('link', { name: 'Back to the project' }).click()
  await page.getByRole('button', { name: 'Two bars' }).click()
  await page.getByRole('button', { name: 'Bring Around a court back' }).click()
  await expect(page.getByRole('menuitemradio')).toHaveCount(4)
})
