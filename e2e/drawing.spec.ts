import { expect, test, type Page } from '@playwright/test'
import {
  addStoreys,
  clickAt,
  details,
  drawCircle,
  drawRectangle,
  figure,
  level,
  newProject,
  openedVerb,
  pixel,
  settled,
  typeField,
  verb,
} from './page'

const picks = (page: Page, what: string) => page.getByLabel('picks').selectOption({ label: what })
/** Types into the fields beside the pointer, Tab between them, and accepts. */
const live = async (page: Page, ...texts: string[]) => {
  await expect(page.locator('[data-live] input').first()).toBeFocused()
  for (const [i, text] of texts.entries()) {
    if (i) await page.keyboard.press('Tab')
    if (text) await page.keyboard.type(text)
  }
  await page.keyboard.press('Enter')
}
/** Drags a handle by so many m in a direction of the model, as it is seen in the 3D view. */
const drag = async (page: Page, handle: string, from: [number, number, number], to: [number, number, number]) => {
  const spot = page.locator(`[data-pane="3d"] [data-handle="${handle}"]`)
  const box = await spot.boundingBox()
  if (!box) throw new Error('no handle')
  const [a, b] = [await pixel(page, '3d', from), await pixel(page, '3d', to)]
  const start = { x: box.x + box.width / 2, y: box.y + box.height / 2 }
  await page.mouse.move(start.x, start.y)
  await page.mouse.down()
  for (const t of [0.3, 0.7, 1]) await page.mouse.move(start.x + (b.x - a.x) * t, start.y + (b.y - a.y) * t)
  await page.mouse.up()
  await settled(page)
}

test('a face is picked and pulled by mouse, by a typed length, on chosen storeys; again does it again', async ({
  page,
}) => {
  await newProject(page, 'Faces')
  await addStoreys(page, '3', '3')
  await drawRectangle(page, [-5, -4], '10', '8', '9')
  await settled(page)
  await picks(page, 'faces')
  // The view looks from the south-east: the east side is in sight.
  await clickAt(page, '3d', [5, 0, 4.5])
  const face = details(page).getByRole('region', { name: 'Picked faces' })
  await expect(face).toContainText('72.00 m²')
  await expect(face).toContainText('east')
  await face.getByLabel('nearest to').fill('0, -5, 6')
  await page.keyboard.press('Enter')
  await expect(face).toContainText('south')
  await face.getByRole('button', { name: 'All tops' }).click()
  await expect(face).toContainText('80.00 m²')
  await clickAt(page, '3d', [5, 0, 4.5])
  await drag(page, 'face', [5, 0, 4.5], [7, 0, 4.5])
  await expect(figure(page, 'volume')).toContainText('864.00')
  await page.keyboard.press('Control+z')
  await expect(figure(page, 'volume')).toContainText('720.00')
  await settled(page)
  await clickAt(page, '3d', [5, 0, 4.5])
  await level(page, 'Storey 2').click({ modifiers: ['Shift'] })
  await expect(details(page)).toContainText('chosen in the spine: Storey 2')
  await typeField(page, 'pull out on 1 chosen', '1.5')
  await settled(page)
  await expect(figure(page, 'volume')).toContainText('756.00')
  await page.keyboard.press('Escape')
  await page.keyboard.press('y')
  await settled(page)
  await expect(figure(page, 'volume')).toContainText('792.00')
})

test('an edge and a corner are moved; what does not stay flat says so', async ({ page }) => {
  await newProject(page, 'Edges')
  await drawRectangle(page, [-5, -4], '10', '8', '4')
  await picks(page, 'edges')
  await clickAt(page, '3d', [5, 0, 4])
  await expect(details(page).getByRole('region', { name: 'Picked edge' })).toContainText('8.000 m')
  await typeField(page, 'move up by', '2')
  await settled(page)
  await expect(figure(page, 'volume')).toContainText('400.00')
  await picks(page, 'corners')
  await clickAt(page, '3d', [5, -4, 6])
  await expect(details(page).getByRole('region', { name: 'Picked corner' })).toContainText('5.000, -4.000, 6.000')
  await drag(page, 'joint-1', [5, -4, 6], [5, -4, 7])
  await expect(page.getByText(/1 finding/)).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(figure(page, 'volume')).toContainText('400.00')
})

test('an outline is drawn on a face: it recesses, or stands out; a mass is raised from a face', async ({ page }) => {
  await newProject(page, 'Patch')
  await drawRectangle(page, [-5, -4], '10', '8', '4')
  await page.keyboard.down('Alt')
  await clickAt(page, '3d', [5, 0, 2])
  await page.keyboard.up('Alt')
  await expect(details(page).getByRole('region', { name: 'Picked faces' })).toContainText('tilt')
  await page.keyboard.press('r')
  await expect(page.locator('[data-hint]')).toContainText('the patch on the east side of Mass 1')
  // The east side runs from south to north as seen from outside; its corner is caught.
  const low = await pixel(page, '3d', [5, -4, 0])
  await page.mouse.move(low.x + 2, low.y - 2)
  await expect(page.locator('[data-pane="3d"] svg text').filter({ hasText: 'end' })).toBeVisible()
  await live(page, '3', '1')
  const away = await pixel(page, '3d', [5, 3, 3])
  await page.mouse.move(away.x, away.y)
  await live(page, '2', '1.5')
  await live(page, '-0.5')
  await settled(page)
  await expect(figure(page, 'volume')).toContainText('318.50')
  await page.keyboard.down('Alt')
  await clickAt(page, '3d', [1, 1, 4])
  await page.keyboard.up('Alt')
  await expect(details(page).getByRole('region', { name: 'Picked faces' })).toContainText('80.00 m²')
  await openedVerb(page, 'Outline', 'From the picked face')
  await settled(page)
  await expect(figure(page, 'volume')).toContainText('558.50')
  await typeField(page, 'height', '2')
  await settled(page)
  await expect(figure(page, 'volume')).toContainText('478.50')
})

test('on an upright plane a section is drawn and carried; a profile is turned about its first point, upright as drawn', async ({
  page,
}) => {
  await newProject(page, 'Upright')
  await page.keyboard.press('u')
  await live(page, '-6', '-2')
  await live(page, '12', '70')
  await verb(page, 'Rectangle').click()
  await live(page, '0', '0')
  const away = await pixel(page, '3d', [2, 1, 3])
  await page.mouse.move(away.x, away.y)
  await live(page, '8', '3')
  await live(page, '5')
  await settled(page)
  await expect(figure(page, 'volume')).toContainText('120.00')
  await page.keyboard.press('Escape')
  await page.keyboard.press('u')
  await page.getByRole('button', { name: 'turned about the first point' }).click()
  await live(page, '20', '3')
  await live(page, '10', '90')
  await live(page, '1.45', '-3.9')
  await live(page, '6.1', '90')
  for (let i = 0; i < 2; i++) await page.keyboard.press('a')
  await live(page, '4.525483399593904', '45')
  for (let i = 0; i < 1; i++) await page.keyboard.press('a')
  await live(page, '1.35', '0')
  await page.keyboard.press('Enter')
  await settled(page)
  await expect(figure(page, 'volume')).toContainText('211.32')
})

test('outlines are taken from what is there: set off from a mass, and from its floor', async ({ page }) => {
  await newProject(page, 'Taken')
  await drawRectangle(page, [-5, -4], '10', '8', '3')
  await settled(page)
  await openedVerb(page, 'Outline', 'Set off from the picked mass')
  await settled(page)
  await expect(details(page).getByLabel('name')).toHaveValue('Mass 1, set off')
  await expect(figure(page, 'volume')).toContainText('360.00')
  await page.keyboard.press('Control+z')
  await expect(figure(page, 'volume')).toContainText('240.00')
  await clickAt(page, 'plan', [0, 0, 0])
  await openedVerb(page, 'Outline', 'From the plate of the picked mass')
  await settled(page)
  await expect(details(page).getByLabel('name')).toHaveValue('Mass 1, plate')
  await expect(figure(page, 'volume')).toContainText('240.00')
})

test('far from zero, on a mass that is turned: faces are picked, pulled and drawn on all the same', async ({
  page,
}) => {
  await newProject(page, 'Far')
  await page.keyboard.press('r')
  await live(page, '32456789.5', '5534321.25')
  await live(page, '10', '8')
  await live(page, '4')
  await settled(page)
  await typeField(page, 'turned by', '-63.5')
  await settled(page)
  await page.locator('[data-fit]').click()
  await picks(page, 'faces')
  const face = details(page).getByRole('region', { name: 'Picked faces' })
  // From the worker's own zero: whole hundreds of metres.
  const at = (x: number, y: number, z: number): [number, number, number] => {
    const [c, s] = [Math.cos((-63.5 * Math.PI) / 180), Math.sin((-63.5 * Math.PI) / 180)]
    return [32456789.5 - 32456800 + c * x - s * y, 5534321.25 - 5534300 + s * x + c * y, z]
  }
  await clickAt(page, '3d', at(10, 4, 2))
  await expect(face).toContainText('32.00 m²')
  await drag(page, 'face', at(10, 4, 2), at(11, 4, 2))
  await expect(figure(page, 'volume')).toContainText('352.00')
  await expect(face).toContainText('32.00 m²')
  await expect(face).toContainText('tilt')
  await page.keyboard.press('c')
  await expect(page.locator('[data-hint]')).toContainText('the patch on the south-east side')
  const middle = await pixel(page, '3d', at(11, 4, 2))
  await page.mouse.move(middle.x, middle.y)
  await live(page, '4', '2')
  await live(page, '1')
  await live(page, '0.5')
  await settled(page)
  await expect(figure(page, 'volume')).toContainText('353.57')
  await expect(figure(page, 'findings')).toHaveText('0 findings')
})

test('half of a number that cannot be drawn leaves the page as it was', async ({ page }) => {
  const faults: string[] = []
  page.on('pageerror', (e) => faults.push(e.message))
  await newProject(page, 'Half typed')
  await drawCircle(page, '6', '4')
  await settled(page)
  const shape = details(page).getByRole('combobox', { name: 'outline' })
  await shape.selectOption('equal sides')
  await settled(page)
  // Its first key alone would be an outline of one side.
  await details(page).getByLabel('sides', { exact: true }).click()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('1')
  await expect(figure(page, 'total')).not.toContainText(/^total 0/)
  await page.keyboard.type('4')
  await page.keyboard.press('Enter')
  await settled(page)
  await expect(details(page).getByLabel('sides', { exact: true })).toHaveValue('14')
  // A size of nothing, and one that is farther than any site: refused, and what stood there stands.
  await drawRectangle(page, [-5, -4], '10', '8', '4')
  await settled(page)
  await shape.selectOption('ellipse')
  await settled(page)
  const volume = await figure(page, 'volume').textContent()
  for (const typed of ['0', '1e12']) {
    await details(page).getByLabel('width', { exact: true }).fill(typed)
    await page.keyboard.press('Enter')
    await expect(page.locator('[data-sonner-toast]').first()).toBeVisible()
    await page.keyboard.press('Escape')
    await settled(page)
    await expect(figure(page, 'volume')).toHaveText(volume ?? '')
  }
  expect(faults).toEqual([])
})
