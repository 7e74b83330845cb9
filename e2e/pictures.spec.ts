import { writeFileSync } from 'node:fs'
import { expect, test, type Page } from '@playwright/test'
import { Sheet } from '../demo/raster'
import { atGround, desk, details, drawRectangle, figure, newProject, part } from './page'

/** A section with a scale bar and marks, as a file. */
function sectionFile(path: string): {
  at: (x: number, y: number) => [number, number]
  zero: [number, number]
  marks: [number, number][]
} {
  const marks = [0, 0.45, 4.1, 4.1, 7.4].map((z, i): [number, number] => [500 + i * 20, 1000 - z * 100])
  const sheet = new Sheet(900, 1200).line([212, 1190], [668, 1181], 3).line([100, 1000], [700, 1000], 4)
  for (const m of marks) sheet.line([m[0] - 8, m[1]], [m[0] + 8, m[1]], 2)
  writeFileSync(path, sheet.png())
  return { at: (x, y) => [x, y], zero: [500, 1000], marks }
}

async function addPicture(page: Page, path: string): Promise<void> {
  await part(page, 'Pictures')
  await page.getByLabel('Picture file').setInputFiles(path)
  await expect(details(page).getByText('Not calibrated')).toBeVisible()
}

/** Clicks a pixel of the picture on the bench. */
async function pick(page: Page, [x, y]: [number, number]): Promise<void> {
  const bench = page.locator('[data-bench]')
  await expect(bench).not.toHaveAttribute('data-bench', 'null')
  const look = JSON.parse((await bench.getAttribute('data-bench')) ?? '{}') as { k: number; x: number; y: number }
  const box = await bench.boundingBox()
  await page.mouse.move((box?.x ?? 0) + x * look.k + look.x, (box?.y ?? 0) + y * look.k + look.y)
  await page.mouse.down()
  await page.mouse.up()
}

test('a picture is calibrated by a scale bar, measured, and its level marks become levels, with the double flagged', async ({
  page,
}, info) => {
  await atGround(page, 'Section')
  const file = info.outputPath('section.png')
  const { marks } = sectionFile(file)
  await addPicture(page, file)
  await details(page).getByRole('button', { name: 'Calibrate' }).click()
  await pick(page, [212, 1190])
  await pick(page, [668, 1181])
  await expect(page.getByLabel('they are apart')).toBeFocused()
  // The loupe is fine, and numbers are finer.
  for (const [label, value] of [
    ['point 1 x', '212'],
    ['point 1 y', '1190'],
    ['point 2 x', '668'],
    ['point 2 y', '1181'],
  ] as const) {
    await page.getByLabel(label).fill(value)
    await page.keyboard.press('Enter')
  }
  await page.getByLabel('they are apart').fill('12 m')
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-figure="scale"]')).toHaveText('26.3107')
  await expect(page.locator('[data-figure="tilt"]')).toHaveText('1.131')
  await page.getByRole('group', { name: 'Task' }).getByRole('button', { name: 'Measure' }).click()
  for (const [label, value] of [
    ['point 1 x', '200'],
    ['point 1 y', '600'],
    ['point 2 x', '378'],
    ['point 2 y', '600'],
  ] as const) {
    await page.getByLabel(label).fill(value)
    await page.keyboard.press('Enter')
  }
  await expect(page.locator('[data-live]')).toHaveText('4.683 m')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.locator('[data-measure="distance_1"]')).toHaveText('4.683 m')
  await pick(page, [200, 700])
  await pick(page, [378, 700])
  await expect(page.locator('[data-measure="distance_2"]')).toHaveText(/4\.[67]\d\d m/)
  await page.getByRole('group', { name: 'What is measured' }).getByRole('button', { name: 'radius' }).click()
  await page.getByRole('button', { name: 'centre and rim' }).click()
  await pick(page, [400, 500])
  await pick(page, [500, 500])
  await expect(page.locator('[data-measure="radius_1"]')).toHaveText(/2\.6[23]\d m/)
  // A scale of 1 cm a pixel makes the marks what they are.
  await page.getByRole('group', { name: 'Task' }).getByRole('button', { name: 'Calibrate' }).click()
  await page.getByRole('button', { name: 'remove' }).click()
  for (const [label, value] of [
    ['point 1 x', '100'],
    ['point 1 y', '1000'],
    ['point 2 x', '700'],
    ['point 2 y', '1000'],
  ] as const) {
    await page.getByLabel(label).fill(value)
    await page.keyboard.press('Enter')
  }
  await page.getByLabel('they are apart').fill('6')
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-figure="scale"]')).toHaveText('10.0000')
  await page.getByRole('group', { name: 'Task' }).getByRole('button', { name: 'Read levels' }).click()
  for (const m of marks) await pick(page, m)
  const heights = page.locator('[data-mark] [data-height]')
  await expect(heights).toHaveText(['0.000', '+0.450', '+4.100', '+4.100', '+7.400'])
  await expect(page.locator('[data-mark="4"]')).toContainText('repeats mark 3')
  await expect(page.locator('[data-mark="1"]')).toContainText('Ground is at this height already')
  await page.getByRole('button', { name: 'Make 3 levels' }).click()
  await expect(page.getByRole('button', { name: /^Read 5, \+7\.400/ })).toBeVisible()
})

test('a pair typed by keyboard keeps the order of the fields, and one that is not level is asked about', async ({
  page,
}, info) => {
  await atGround(page, 'Section by keyboard')
  const file = info.outputPath('section.png')
  sectionFile(file)
  await addPicture(page, file)
  await details(page).getByRole('button', { name: 'Calibrate' }).click()
  await page.getByLabel('point 1 x').focus()
  for (const number of ['212', '1190', '668', '1181']) {
    await page.keyboard.type(number)
    await page.keyboard.press('Tab')
  }
  await expect(page.getByLabel('they are apart')).toBeFocused()
  await expect(page.getByLabel('point 2 y')).toHaveValue('1181')
  await page.keyboard.type('12 m')
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-figure="scale"]')).toHaveText('26.3107')
  // The second pair runs up the picture, though it is told to be level.
  await page.getByLabel('point 1 x').focus()
  for (const number of ['212', '1190', '212', '734']) {
    await page.keyboard.type(number)
    await page.keyboard.press('Enter')
  }
  await expect(page.getByLabel('they are apart')).toBeFocused()
  await page.keyboard.type('12 m')
  await page.keyboard.press('Enter')
  const question = page.getByRole('alert').filter({ hasText: 'Which is right?' })
  await expect(question).toContainText('they are 90.0° off it')
  await page.keyboard.press('Tab')
  await page.keyboard.press('Tab')
  await page.keyboard.press('Tab')
  await page.keyboard.press('Tab')
  await expect(question.getByRole('button', { name: 'They lie plumb' })).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-figure="tilt"]')).toHaveText('0.565')
  await page.keyboard.press('Control+z')
  await expect(page.locator('[data-figure="tilt"]')).toHaveText('1.131')
})

test('closed shapes of an ink sketch are found, one is taken, and becomes a mass that lies where it was traced', async ({
  page,
}, info) => {
  test.setTimeout(120_000)
  await atGround(page, 'Sketch')
  const file = info.outputPath('sketch.png')
  const sheet = new Sheet(1400, 1000)
    .loop(
      [
        [200, 200],
        [600, 200],
        [600, 500],
        [1000, 500],
        [1000, 800],
        [200, 800],
      ],
      5,
    )
    .loop(
      [
        [300, 600],
        [450, 600],
        [450, 700],
        [300, 700],
      ],
      5,
    )
    .loop(
      [
        [1100, 200],
        [1300, 200],
        [1300, 350],
        [1100, 350],
      ],
      5,
    )
    .specks(300)
  writeFileSync(file, sheet.png())
  await addPicture(page, file)
  await details(page).getByRole('button', { name: 'Calibrate' }).click()
  for (const [label, value] of [
    ['point 1 x', '200'],
    ['point 1 y', '800'],
    ['point 2 x', '1000'],
    ['point 2 y', '800'],
  ] as const) {
    await page.getByLabel(label).fill(value)
    await page.keyboard.press('Enter')
  }
  await page.getByLabel('they are apart').fill('24')
  await page.keyboard.press('Enter')
  await page.getByRole('group', { name: 'Task' }).getByRole('button', { name: 'Trace' }).click()
  await page.getByRole('button', { name: 'Find closed shapes' }).click()
  await expect(page.locator('[data-found]')).toHaveCount(2, { timeout: 60_000 })
  await expect(page.locator('[data-found="1"]')).toContainText('6 corners, a court of 4')
  await page.getByLabel('take shape 2').uncheck()
  await page.getByRole('button', { name: 'Keep 1' }).click()
  await page.getByRole('button', { name: 'Close the bench' }).click()
  await page.getByRole('button', { name: 'all pictures' }).click()
  await page.locator('[data-trace="Traced 1"]').getByRole('button', { name: 'make a mass' }).click()
  await expect(details(page).getByText('Recipe')).toBeVisible()
  // 800 x 600 pixels of 30 mm, less the notch of 400 x 300 and the court of 150 x 100.
  await expect
    .poll(async () =>
      Math.abs(parseFloat(((await figure(page, 'total').textContent()) ?? '').replace(/,/g, '')) - 310.5),
    )
    .toBeLessThan(1)
  await part(page, 'Pictures')
  await page.locator('[data-trace="Traced 1"]').getByRole('button', { name: 'compare' }).click()
  await expect(page.locator('[data-compared]')).toContainText('at most 0.0 mm')
})

test('what is no picture, or too large a one, is refused with a sentence', async ({ page }, info) => {
  await atGround(page, 'No picture')
  await part(page, 'Pictures')
  const wrong = info.outputPath('note.png')
  writeFileSync(wrong, 'this is a note')
  await page.getByLabel('Picture file').setInputFiles(wrong)
  await expect(page.getByText('is no picture that can be read')).toBeVisible()
  const huge = info.outputPath('huge.png')
  writeFileSync(huge, Buffer.alloc(200 * 1024 * 1024))
  await page.getByLabel('Picture file').setInputFiles(huge)
  await expect(page.getByText('has 210 MB; up to 60 MB are taken')).toBeVisible()
})

test('a picture stands in elevation and in plan from one file, tied to a corner of a mass, locked against changes', async ({
  page,
}, info) => {
  await newProject(page, 'Stands')
  await drawRectangle(page, [2, 3], '12', '9', '6')
  await desk(page, 'Ground')
  const file = info.outputPath('front.png')
  sectionFile(file)
  await addPicture(page, file)
  await details(page).getByRole('button', { name: 'Stand upright' }).click()
  await expect(details(page).locator('[data-stand]')).toHaveCount(2)
  await details(page).getByLabel('its pin is at').selectOption('corner')
  await details(page).getByLabel('seen from').selectOption({ label: 'east' })
  await details(page).locator('[data-stand="upright"]').getByRole('button', { name: 'look' }).click()
  await expect(page.locator('[data-pane="elevation"]')).toBeVisible()
  await expect
    .poll(
      async () =>
        (
          JSON.parse((await page.locator('[data-pane="elevation"]').getAttribute('data-view')) ?? '{}') as {
            azimuth: number
          }
        ).azimuth,
    )
    .toBe(0)
  await details(page).getByLabel('locked').check()
  await expect(details(page).getByRole('button', { name: 'Lay in plan' })).toBeDisabled()
  await expect(details(page).getByRole('button', { name: 'Crop' })).toBeDisabled()
})

test('a page of a PDF is taken as a picture; a page that is not there is refused', async ({ page }, info) => {
  await atGround(page, 'Pages')
  const stream = (d: string) => `<< /Length ${d.length} >>\nstream\n${d}\nendstream`
  const objects = [
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R 6 0 R] /Count 2 >>',
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Contents 4 0 R /Resources << >> >>',
    stream('3 w 100 100 m 400 100 l 400 300 l s'),
    stream('3 w 200 200 m 500 200 l 500 700 l s'),
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 842 595] /Contents 5 0 R /Resources << >> >>',
  ]
  let pdf = '%PDF-1.4\n'
  const starts = objects.map((o, i) => {
    const at = pdf.length
    pdf += `${i + 1} 0 obj\n${o}\nendobj\n`
    return at
  })
  const xref = pdf.length
  pdf += `xref\n0 7\n0000000000 65535 f \n${starts.map((s) => `${String(s).padStart(10, '0')} 00000 n \n`).join('')}trailer << /Size 7 /Root 1 0 R >>\nstartxref\n${xref}\n%%EOF\n`
  const file = info.outputPath('plans.pdf')
  writeFileSync(file, pdf, 'latin1')
  await part(page, 'Pictures')
  await page.getByLabel('Picture file').setInputFiles(file)
  await page.getByLabel('page', { exact: true }).fill('3')
  await page.keyboard.press('Enter')
  await expect(page.getByText('plans.pdf has 2 pages; there is no page 3')).toBeVisible()
  await page.getByLabel('Picture file').setInputFiles(file)
  await page.getByLabel('page', { exact: true }).fill('2')
  await page.keyboard.press('Enter')
  await expect(details(page).getByText('Not calibrated')).toBeVisible()
  await expect(details(page).getByLabel('name')).toHaveValue('plans')
})
