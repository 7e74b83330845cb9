import { readFile } from 'node:fs/promises'
import { expect, type Locator, type Page } from '@playwright/test'

/** A new project, at its first desk. By hand on the page of projects where its site is said; else as that page would have it made. */
export async function newProject(
  page: Page,
  name: string,
  { unit = 'm', site }: { unit?: 'm' | 'mm' | 'ft'; site?: string } = {},
): Promise<void> {
  if (site) {
    await page.goto('/')
    await page.getByRole('button', { name: 'New project' }).click()
    await page.getByLabel('name', { exact: true }).fill(name)
    await page.getByLabel('unit').selectOption(unit)
    await page.getByLabel('site area, m²').fill(site)
    await page.keyboard.press('Enter')
  } else {
    const made = await page.request.post('/api/projects', { data: { name, unit, siteArea: null, starter: null } })
    await page.goto(`/p/${((await made.json()) as { id: string }).id}/form`)
  }
  await expect(figure(page, 'total')).toBeVisible()
}

export async function openDemo(page: Page): Promise<void> {
  const all = (await (await page.request.get('/api/projects')).json()) as { id: string; name: string }[]
  await page.goto(`/p/${all.find((p) => p.name === 'Kiln Quay')?.id}/slice`)
  await expect(figure(page, 'total')).toBeVisible()
}

/** A project of its own with the demo's content, for what changes it: other tests read the demo as it is. */
export async function openCopy(page: Page, name: string): Promise<void> {
  const demo = JSON.parse(await readFile(new URL('../demo/kiln-quay.geotome.json', import.meta.url), 'utf8')) as {
    project: { name: string }
  }
  demo.project.name = name
  const made = await page.request.post('/api/projects/import', {
    headers: { 'content-type': 'application/octet-stream' },
    data: Buffer.from(JSON.stringify(demo)),
  })
  await page.goto(`/p/${((await made.json()) as { id: string }).id}/slice`)
  await expect(figure(page, 'total')).toBeVisible()
}

export const figure = (page: Page, name: string): Locator => page.locator(`footer [data-figure="${name}"]`)
export const desk = async (page: Page, name: string): Promise<void> => {
  const link = page.getByRole('navigation', { name: 'Desks' }).getByRole('link', { name })
  await link.click()
  await expect(link).toHaveAttribute('aria-current', 'page')
}
export const verb = (page: Page, name: string | RegExp): Locator =>
  page.getByRole('toolbar', { name: 'Verbs' }).getByRole('button', { name })
/** What opens under a verb of the bar. */
export const openedVerb = async (page: Page, menu: string, entry: string): Promise<void> => {
  await verb(page, menu).click()
  await page.getByRole('menuitem', { name: entry }).click()
}
export const details = (page: Page): Locator => page.getByRole('complementary', { name: 'Details' })
export const level = (page: Page, name: string): Locator =>
  page.getByRole('complementary', { name: 'Spine' }).getByRole('button', { name: new RegExp(`^${name},`) })

/** Waits until what was done is computed and shown, and the views are fitted to it: from then on a point stays where it is. */
export async function settled(page: Page): Promise<void> {
  await expect(page.locator('footer[data-settled="true"]')).toBeVisible()
  await expect(page.locator('[data-fitted="true"]')).toBeVisible()
  await expect(page.locator(`[data-pane][data-view*='"size":[0,']`)).toHaveCount(0)
}

/** The pixel of a point (m) in a pane, from the view that the pane says it shows. */
export async function pixel(
  page: Page,
  pane: '3d' | 'plan',
  [x, y, z]: [number, number, number],
): Promise<{ x: number; y: number }> {
  await settled(page)
  const locator = page.locator(`[data-pane="${pane}"]`)
  const view = JSON.parse((await locator.getAttribute('data-view')) ?? '{}') as {
    target: number[]
    azimuth: number
    elevation: number
    scale: number
    size: number[]
  }
  const box = await locator.boundingBox()
  const [a, e] = [(view.azimuth * Math.PI) / 180, (view.elevation * Math.PI) / 180]
  const d = [x - (view.target[0] ?? 0), y - (view.target[1] ?? 0), z - (view.target[2] ?? 0)] as const
  const right = -Math.sin(a) * d[0] + Math.cos(a) * d[1]
  const up = -Math.sin(e) * Math.cos(a) * d[0] - Math.sin(e) * Math.sin(a) * d[1] + Math.cos(e) * d[2]
  return {
    x: (box?.x ?? 0) + (view.size[0] ?? 0) / 2 + right * view.scale,
    y: (box?.y ?? 0) + (view.size[1] ?? 0) / 2 - up * view.scale,
  }
}

export async function clickAt(
  page: Page,
  pane: '3d' | 'plan',
  point: [number, number, number],
  options: { shift?: boolean } = {},
): Promise<void> {
  const { x, y } = await pixel(page, pane, point)
  await page.mouse.move(x - 3, y - 2)
  await page.mouse.move(x, y)
  if (options.shift) await page.keyboard.down('Shift')
  await page.mouse.down()
  await page.mouse.up()
  if (options.shift) await page.keyboard.up('Shift')
}

/** Draws a rectangle: a click, then typed width, depth and height. */
export async function drawRectangle(
  page: Page,
  from: [number, number],
  width: string,
  depth: string,
  height: string,
  toward: [number, number] = [1, 1],
): Promise<void> {
  await verb(page, 'Rectangle').click()
  await clickAt(page, 'plan', [from[0], from[1], 0])
  const { x, y } = await pixel(page, 'plan', [from[0], from[1], 0])
  await page.mouse.move(x + 30 * toward[0], y - 30 * toward[1])
  await page.keyboard.type(width)
  await page.keyboard.press('Tab')
  await page.keyboard.type(depth)
  await page.keyboard.press('Enter')
  await page.keyboard.type(height)
  await page.keyboard.press('Enter')
  await expect(details(page).getByText('Recipe')).toBeVisible()
}

/** Draws a circle about the plan's zero: a click, then a typed radius and height. */
export async function drawCircle(page: Page, radius: string, height: string): Promise<void> {
  await page.keyboard.press('c')
  await expect(page.locator('[data-hint]')).toContainText('centre of the circle')
  await clickAt(page, 'plan', [0, 0, 0])
  await page.keyboard.type(radius)
  await page.keyboard.press('Enter')
  await page.keyboard.type(height)
  await page.keyboard.press('Enter')
  await expect(details(page).getByText('Recipe')).toBeVisible()
}

/** Types into a field of the details and accepts. */
export async function typeField(page: Page, label: string, text: string): Promise<void> {
  const field = details(page).getByLabel(label, { exact: true })
  await field.click()
  await field.fill(text)
  await page.keyboard.press('Enter')
}

export async function addStoreys(page: Page, count: string, each: string): Promise<void> {
  await page.getByRole('button', { name: 'Add several' }).click()
  await page.getByLabel('how many').fill(count)
  await page.getByLabel('each', { exact: true }).fill(each)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog')).toHaveCount(0)
}

/** Adds levels by lines in the spine, one after the other. */
export async function addLevels(page: Page, ...lines: string[]): Promise<void> {
  const field = page.getByLabel('add a level', { exact: true })
  await page.getByRole('button', { name: 'Add level', exact: true }).first().click()
  await expect(field).toBeFocused()
  for (const line of lines) {
    await field.fill(line)
    await page.keyboard.press('Enter')
    await expect(field).toHaveValue('')
  }
}

/** A figure of the open ledger, by level. */
export const cell = (page: Page, row: string, name: string): Locator =>
  page.locator(`[data-row="${row}"] [data-cell="${name}"]`)
export const saved = (page: Page): Promise<void> => expect(page.locator('[data-saved="saved"]')).toBeVisible()

/** A part of the Ground desk. */
export const part = (page: Page, name: string): Promise<void> => page.getByRole('tab', { name }).click()

/** A new project at its Ground desk. */
export async function atGround(page: Page, name: string): Promise<void> {
  await newProject(page, name)
  await desk(page, 'Ground')
}
