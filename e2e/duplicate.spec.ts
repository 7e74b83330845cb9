import { expect, test, type Page } from '@playwright/test'
import {
  clickAt,
  desk,
  details,
  drawRectangle,
  figure,
  level,
  newProject,
  pixel,
  saved,
  typeField,
  settled,
  openedVerb,
} from './page'

/** The first scheme as the server has it, to the byte. */
async function first(page: Page): Promise<string> {
  await saved(page)
  const id = /\/p\/([^/]+)/.exec(page.url())?.[1] ?? ''
  return page.evaluate(async (of) => {
    const { project } = (await (await fetch(`/api/projects/${of}`)).json()) as {
      project: { schemes: Record<string, { order: number }> }
    }
    const [scheme] = Object.values(project.schemes).sort((a, b) => a.order - b.order)
    return JSON.stringify(scheme)
  }, id)
}

async function drag(page: Page, from: { x: number; y: number }, by: [number, number]): Promise<void> {
  await page.mouse.move(from.x, from.y)
  await page.mouse.down()
  await page.mouse.move(from.x + by[0] / 2, from.y + by[1] / 2, { steps: 4 })
  await page.mouse.move(from.x + by[0], from.y + by[1], { steps: 4 })
  await page.mouse.up()
}

const middleOf = async (page: Page, selector: string) => {
  const box = await page.locator(selector).first().boundingBox()
  return { x: (box?.x ?? 0) + (box?.width ?? 0) / 2, y: (box?.y ?? 0) + (box?.height ?? 0) / 2 }
}

test('whatever is done in a duplicated scheme leaves the first one as it was, to the byte', async ({ page }) => {
  test.setTimeout(150_000)
  await newProject(page, 'Two of one')
  await desk(page, 'Form')
  await drawRectangle(page, [0, 0], '10', '8', '6')
  await drawRectangle(page, [2, 9], '6', '5', '6')
  const whole = '110.00 m²'
  await expect(figure(page, 'total')).toHaveText(whole)
  await page.locator('[data-scheme]').click()
  await page.getByRole('button', { name: /^Duplicate/ }).click()
  await expect(page.locator('[data-scheme]')).toHaveText('Scheme B')
  const before = await first(page)
  const total = async () => {
    await settled(page)
    return figure(page, 'total').textContent()
  }

  // A drag of the mass in plan, and one in 3D.
  await clickAt(page, 'plan', [5, 4, 0])
  await expect(details(page).getByText('Recipe')).toBeVisible()
  await drag(page, await pixel(page, 'plan', [5, 4, 0]), [40, -30])
  await saved(page)
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toHaveAttribute('title', /move/)
  expect(await first(page)).toBe(before)
  await drag(page, await pixel(page, '3d', [5, 4, 6]), [30, 10])
  expect(await first(page)).toBe(before)

  // Its handles: corner, height, turn.
  for (const handle of ['corner-1', 'height', 'turn']) {
    const pane = handle === 'height' ? '3d' : 'plan'
    await drag(
      page,
      await middleOf(page, `[data-pane="${pane}"] [data-handle="${handle}"]`),
      handle === 'height' ? [0, -40] : [25, -12],
    )
    expect(await first(page)).toBe(before)
  }
  // Typed numbers, a level dragged and typed, a join, a deletion.
  const now = await total()
  await typeField(page, 'height', '9')
  expect(await first(page)).toBe(before)
  const ground = await level(page, 'Ground').boundingBox()
  await drag(page, { x: (ground?.x ?? 0) + 180, y: (ground?.y ?? 0) + (ground?.height ?? 0) + 2 }, [0, -20])
  expect(await first(page)).toBe(before)
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Mass 2' }).first().click()
  await expect(details(page).getByLabel('name', { exact: true })).toHaveValue('Mass 2')
  await clickAt(page, 'plan', [9, 3.5, 0.4], { shift: true })
  await openedVerb(page, 'Combine', 'Join')
  await saved(page)
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toHaveAttribute('title', /join/i)
  expect(await first(page)).toBe(before)
  await page.keyboard.press('Delete')
  await saved(page)
  expect(await first(page)).toBe(before)
  expect(await total()).not.toBe(now)
  await page.locator('[data-scheme]').click()
  await page.getByRole('menuitemradio', { name: 'Scheme A' }).click()
  await expect(figure(page, 'total')).toHaveText(whole)
})
