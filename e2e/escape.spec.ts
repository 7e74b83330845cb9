import { expect, test, type Page } from '@playwright/test'
import { addLevels, desk, details, drawRectangle, figure, level, newProject, pixel, saved, settled } from './page'

/** Drags from one pixel to another, looks while it lasts, presses Escape, and lets go. */
async function dragAndEscape(
  page: Page,
  from: { x: number; y: number },
  by: [number, number],
  live: () => Promise<void>,
) {
  await page.mouse.move(from.x, from.y)
  await page.mouse.down()
  await page.mouse.move(from.x + by[0], from.y + by[1], { steps: 5 })
  await live()
  await page.keyboard.press('Escape')
  await page.mouse.move(from.x + by[0] * 1.5, from.y + by[1] * 1.5)
  await page.mouse.up()
}

test('Escape takes back whatever is being dragged: a mass, a corner, its height, a level', async ({ page }) => {
  await newProject(page, 'Escape')
  await addLevels(page, '3', '3 x 3.15 Upper')
  await desk(page, 'Form')
  await drawRectangle(page, [0, 0], '20', '10', '6')
  await settled(page)
  const total = await figure(page, 'total').textContent()
  const east = await details(page).getByLabel('east').inputValue()
  const [x0, y0] = [Number.parseFloat(east), Number.parseFloat(await details(page).getByLabel('north').inputValue())]
  const unchanged = async () => {
    await settled(page)
    await expect(details(page).getByLabel('east')).toHaveValue(east)
    await expect(details(page).getByLabel('width', { exact: true })).toHaveValue('20.000 m')
    await expect(figure(page, 'total')).toHaveText(total ?? '')
  }
  await dragAndEscape(page, await pixel(page, 'plan', [x0 + 10, y0 + 5, 0]), [60, 30], async () => {
    await expect(details(page).getByLabel('east')).not.toHaveValue(east)
  })
  await unchanged()
  await dragAndEscape(page, await pixel(page, 'plan', [x0 + 20, y0 + 10, 0]), [40, -30], async () => {
    await expect(figure(page, 'total')).not.toHaveText(total ?? '')
  })
  await unchanged()
  const upper = level(page, 'Upper 2')
  const name = await upper.getAttribute('aria-label')
  const box = await upper.boundingBox()
  await dragAndEscape(page, { x: (box?.x ?? 0) + 20, y: (box?.y ?? 0) + 10 }, [0, -40], async () => {
    await expect(upper).not.toHaveAccessibleName(name ?? '')
  })
  await expect(upper).toHaveAccessibleName(name ?? '')
  await unchanged()
  await saved(page)
  // Nothing of it was made: the first step back is the mass.
  await page.keyboard.press('Control+z')
  await expect(figure(page, 'total')).toHaveText('0.00 m²')
})

test('what is dragged out and back to where it was taken hold of is as it was, and nothing is made', async ({
  page,
}) => {
  await newProject(page, 'Back')
  await addLevels(page, '3', '3 x 3.15 Upper')
  await desk(page, 'Form')
  await drawRectangle(page, [0, 0], '20', '10', '6.43')
  await settled(page)
  const east = await details(page).getByLabel('east').inputValue()
  const [x0, y0] = [Number.parseFloat(east), Number.parseFloat(await details(page).getByLabel('north').inputValue())]
  const handle = async (name: string) => {
    const box = await page.locator(`[data-handle="${name}"]`).first().boundingBox()
    return { x: (box?.x ?? 0) + (box?.width ?? 0) / 2, y: (box?.y ?? 0) + (box?.height ?? 0) / 2 }
  }
  for (const [from, live] of [
    [await pixel(page, 'plan', [x0 + 10, y0 + 5, 0]), 'east'],
    [await handle('turn'), 'turned by'],
    [await handle('height'), 'height'],
  ] as const) {
    const field = details(page).getByLabel(live, { exact: true })
    const before = await field.inputValue()
    await page.mouse.move(from.x, from.y)
    await page.mouse.down()
    await page.mouse.move(from.x + 60, from.y + 40, { steps: 5 })
    await expect(field).not.toHaveValue(before)
    await page.mouse.move(from.x, from.y, { steps: 5 })
    await expect(field).toHaveValue(before)
    await page.mouse.up()
    await settled(page)
    await expect(field).toHaveValue(before)
  }
  // Nor of a number that is typed again.
  const field = details(page).getByLabel('height', { exact: true })
  await field.fill('6.43')
  await field.press('Enter')
  await saved(page)
  // Nothing of it was made: the first step back is the mass.
  await page.keyboard.press('Control+z')
  await expect(figure(page, 'total')).toHaveText('0.00 m²')
})
