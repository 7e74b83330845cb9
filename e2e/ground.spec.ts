import { expect, test, type Page } from '@playwright/test'
import {
  atGround,
  clickAt,
  desk,
  details,
  drawRectangle,
  figure,
  newProject,
  openDemo,
  part,
  typeField,
  verb,
  settled,
} from './page'

const entered = (page: Page) => page.locator('[data-entered]')
const side = (page: Page, n: number) => page.locator(`[data-side="${n}"]`)

test('a site is typed by its corners, and shows its area and sides; one that crosses itself is refused, and what was typed stays', async ({
  page,
}) => {
  await atGround(page, 'Corners')
  await page.getByRole('button', { name: 'Points', exact: true }).click()
  const corners = page.getByLabel('corners')
  await corners.fill('(0,0) (10,10) (10,0) (0,10)')
  await page.getByRole('button', { name: 'Make it the site' }).click()
  await expect(page.getByText('crosses itself: side 1 meets side 3')).toBeVisible()
  await expect(corners).toHaveValue('(0,0) (10,10) (10,0) (0,10)')
  await corners.fill('(0,0) (28,0) (31,19) (2,22)')
  await expect(entered(page)).toContainText('588.00 m²')
  await page.getByRole('button', { name: 'Make it the site' }).click()
  await expect(details(page).locator('[data-figure="site-area"]')).toHaveText('588.00 m²')
  for (const [i, length] of ['28.000', '19.235', '29.155', '22.091'].entries())
    await expect(side(page, i + 1).locator('[data-side-length]')).toHaveText(length)
})

test('a site by lengths and directions closes itself', async ({ page }) => {
  await atGround(page, 'Legs')
  await page.getByRole('button', { name: 'Lengths' }).click()
  await page
    .getByLabel('lengths and directions')
    .fill('9.4 east\n5.6 north\n3.7 west\n1.6 north\n3.6 west\n1.1 north\n2.1 west')
  await expect(entered(page)).toContainText('closing segment south 8.300')
  await expect(entered(page)).toContainText('64.07 m², boundary 35.400')
})

test('setbacks and a limit leave an envelope; a mass in it says by how much it is over, live, and is placed by its distances', async ({
  page,
}) => {
  await atGround(page, 'Envelope')
  await page.getByLabel('width, east').fill('22.4')
  await page.getByLabel('depth, north').fill('35')
  await page.keyboard.press('Enter')
  for (const [i, setback] of ['5.5', '1.8', '6', '1.8'].entries()) {
    await side(page, i + 1)
      .getByLabel('setback')
      .fill(setback)
    await page.keyboard.press('Enter')
  }
  await expect(details(page).locator('[data-figure="buildable"]')).toHaveText('441.80')
  await page.getByRole('button', { name: 'Set a height limit' }).click()
  await typeField(page, 'height limit', '9.9')
  await desk(page, 'Form')
  await drawRectangle(page, [4, 8], '10', '12', '10.2')
  await expect(details(page).locator('[data-fit]')).toContainText('over the height limit by 0.300')
  await expect(details(page).locator('[data-fit]')).toContainText('36.00 m³ over')
  await typeField(page, 'west side', '1.8')
  await expect(details(page).getByLabel('east side', { exact: true })).toHaveValue('10.600')
  await expect(details(page).getByText('site coverage 15.3 %')).toBeVisible()
  await page.getByRole('button', { name: /finding/ }).click()
  await page.locator('[data-finding="over the envelope"]').getByRole('button', { name: 'Lower it by 0.3 m' }).click()
  await expect(details(page).locator('[data-fit]')).toContainText('inside, 0.000 to spare in height')
})

test('a survey is read, its bad rows are named, and masses say how high they stand above the ground; neighbours are not counted', async ({
  page,
}) => {
  await newProject(page, 'Survey')
  await drawRectangle(page, [10, 10], '10', '20', '9')
  await desk(page, 'Ground')
  await part(page, 'Terrain')
  await page.getByRole('button', { name: 'Read a survey' }).click()
  await page
    .getByLabel('Site file')
    .setInputFiles({
      name: 'levels.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from('x,y,z\n0,0,0\n40,0,4\nforty,40,4\n40,40,4\n0,40,0\n'),
    })
  await expect(page.getByText('row 4 is not numbers: "forty, 40, 4"')).toBeVisible()
  await page.getByRole('button', { name: 'Read it without these rows' }).click()
  await expect(page.locator('[data-found]')).toContainText('4 points')
  await page.getByRole('button', { name: 'Take it' }).click()
  await expect(details(page).locator('[data-figure="terrain-points"]')).toHaveText('4')
  await expect(details(page).getByText('8.000 / 7.500 / 7.000')).toBeVisible()
  await settled(page)
  const total = await figure(page, 'total').textContent()
  await page.getByRole('button', { name: 'Read a survey' }).click()
  await page.getByLabel('Site file').setInputFiles({
    name: 'around.geojson',
    mimeType: 'application/json',
    buffer: Buffer.from(
      JSON.stringify({
        type: 'FeatureCollection',
        crs: { type: 'name', properties: { name: 'EPSG:25832' } },
        features: [
          {
            type: 'Feature',
            properties: { name: 'Shed', height: 7 },
            geometry: {
              type: 'Polygon',
              coordinates: [
                [
                  [25, 10],
                  [33, 10],
                  [33, 18],
                  [25, 18],
                  [25, 10],
                ],
              ],
            },
          },
        ],
      }),
    ),
  })
  await page.getByRole('button', { name: 'Take it' }).click()
  await expect(page.locator('[data-neighbour]')).toHaveCount(1)
  await expect(figure(page, 'total')).toHaveText(total ?? '')
  await page.getByRole('button', { name: 'Receive from the scanner' }).click()
  await expect(details(page).locator('[data-figure="terrain-points"]')).toHaveText('600')
})

test('the demo: levels as lines in elevation are dragged and never overprint; a section cuts; another level lies faintly behind', async ({
  page,
}) => {
  await openDemo(page)
  await desk(page, 'Ground')
  await page.getByRole('button', { name: 'Elevation', exact: true }).click()
  const labels = page.locator('[data-level-label]')
  await expect(labels.first()).toBeVisible()
  const apart = async () => {
    const ys = (await labels.evaluateAll((all) => all.map((e) => e.getBoundingClientRect().top))).sort((a, b) => a - b)
    return Math.min(...ys.slice(1).map((y, i) => y - (ys[i] ?? 0)))
  }
  expect(await apart()).toBeGreaterThan(12)
  const pane = page.locator('[data-pane="elevation"]')
  await pane.hover()
  await page.mouse.wheel(0, 900)
  expect(await apart()).toBeGreaterThan(12)
  await page.getByRole('button', { name: 'north', exact: true }).click()
  await expect
    .poll(async () => (JSON.parse((await pane.getAttribute('data-view')) ?? '{}') as { azimuth: number }).azimuth)
    .toBe(90)
  await page.getByRole('button', { name: 'Section', exact: true }).click()
  await expect(page.locator('[data-section-line]')).toBeAttached()
  await page.getByLabel('level behind').selectOption({ label: 'behind: Quay' })
  await part(page, 'Project')
  await expect(details(page).getByLabel('client')).toHaveValue('Kiln Quay Housing Cooperative')
})

test('a site is drawn in plan by clicks and typed lengths, a neighbour with its height; a distance is measured corner to corner and used in a field', async ({
  page,
}) => {
  await newProject(page, 'Drawn')
  await drawRectangle(page, [0, 0], '12', '9', '6')
  await desk(page, 'Ground')
  await verb(page, 'Site').click()
  await clickAt(page, 'plan', [-8, -6, 0])
  for (const [length, bearing] of [
    ['30', '90'],
    ['24', '0'],
    ['30', '270'],
  ] as const) {
    await page.keyboard.type(length)
    await page.keyboard.press('Tab')
    await page.keyboard.type(bearing)
    await page.keyboard.press('Enter')
  }
  await page.keyboard.press('Enter')
  await expect(details(page).locator('[data-figure="site-area"]')).toHaveText('720.00 m²')
  await page.getByRole('button', { name: 'Show all' }).click()
  await verb(page, 'Neighbour').click()
  await clickAt(page, 'plan', [16, 0, 0])
  for (const [length, bearing] of [
    ['6', '90'],
    ['10', '0'],
  ] as const) {
    await page.keyboard.type(length)
    await page.keyboard.press('Tab')
    await page.keyboard.type(bearing)
    await page.keyboard.press('Enter')
  }
  await page.keyboard.press('Enter')
  await page.keyboard.type('7.5')
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-neighbour="Neighbour 1"]')).toContainText('to 7.500')
  await verb(page, 'Measure').click()
  await clickAt(page, 'plan', [0, 0, 0])
  await clickAt(page, 'plan', [12, 9, 0])
  await expect(page.locator('[data-measure="distance_1"] [data-measure-value]')).toHaveText('15.000 m')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Add several' }).click()
  await page.getByLabel('how many').fill('1')
  await page.getByLabel('each', { exact: true }).fill('distance_1 / 5')
  await expect(page.locator('[data-planned]')).toContainText('at 3.000')
})
