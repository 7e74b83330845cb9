import { expect, test } from '@playwright/test'
import { manyMasses } from '../scripts/campaign/many-masses'
import { details, figure, saved, typeField, verb } from './page'

const FILE = { 'content-type': 'application/octet-stream' }

test('an edit that somebody was quicker with is said with its value, and tried again on what is there now', async ({
  page,
  request,
}) => {
  const made = await request.post('/api/projects', { data: { name: 'Refused', unit: 'm', siteArea: 100 } })
  const { id } = (await made.json()) as { id: string }
  await page.goto(`/p/${id}/form`)
  await expect(figure(page, 'total')).toBeVisible()
  // The server is away for this window alone.
  await page.route('**/edits', (route) =>
    route.request().method() === 'POST' ? route.abort('connectionrefused') : route.continue(),
  )
  await typeField(page, 'headroom', '2.4')
  await expect(page.locator('[data-saved="away"]')).toContainText('1 kept here')
  const theirs = { edit: 'project.change', set: { headroom: 2.9 } }
  await request.post(`/api/projects/${id}/edits`, { data: { id: 'theirs', author: 'b', label: 'x', edit: theirs } })
  await page.unroute('**/edits')
  const list = page.locator('details', { hasText: '1 not stored' })
  await list.locator('summary').click()
  await expect(list).toContainText('2.400 m')
  await expect(details(page).getByLabel('headroom')).toHaveValue('2.900 m')
  await list.getByRole('button', { name: 'Try again' }).click()
  await saved(page)
  await expect(page.getByText('not stored')).toHaveCount(0)
  const now = (await (await request.get(`/api/projects/${id}`)).json()) as { project: { headroom: number } }
  expect(now.project.headroom).toBe(2.4)
})

test('a project that somebody takes away while it is open is said at once, and can be brought back from there', async ({
  page,
  request,
}) => {
  const made = await request.post('/api/projects', { data: { name: 'Open', unit: 'm', siteArea: 100 } })
  const { id } = (await made.json()) as { id: string }
  await page.goto(`/p/${id}/form`)
  await expect(figure(page, 'total')).toBeVisible()
  await request.delete(`/api/projects/${id}`)
  const bar = page.getByRole('alert').filter({ hasText: 'Somebody has removed this project' })
  await bar.getByRole('button', { name: 'Bring it back' }).click()
  await expect(bar).toHaveCount(0)
  await typeField(page, 'headroom', '2.2')
  await saved(page)
  const now = (await (await request.get(`/api/projects/${id}`)).json()) as { project: { headroom: number } }
  expect(now.project.headroom).toBe(2.2)
})

test('a large building is offered by numbers first; reading it can be stopped and begun again, and it is made whole', async ({
  page,
  request,
}) => {
  test.setTimeout(240_000)
  const imported = await request.post('/api/projects/import', { headers: FILE, data: manyMasses(100, 40) })
  const { id } = (await imported.json()) as { id: string }
  // The total that the server has stands there before the page has computed anything.
  const listed = async () => {
    const all = (await (await request.get('/api/projects')).json()) as { id: string; totalArea: number | null }[]
    return all.find((p) => p.id === id)?.totalArea ?? null
  }
  await expect.poll(listed, { timeout: 60_000 }).not.toBeNull()
  await page.goto(`/p/${id}/fabric`)
  await expect(figure(page, 'total-of-server')).toHaveText(/^[\d,.]+ m²$/)
  const early = await figure(page, 'total-of-server').textContent()
  await expect(figure(page, 'total')).toHaveText(early ?? '')
  await verb(page, 'Make building').click()
  const work = details(page).locator('[data-working-out]')
  await work.getByRole('button', { name: 'Stop' }).click()
  await expect(details(page)).toContainText('Left off; nothing was made.')
  await work.getByRole('button', { name: 'Begin again' }).click()
  const make = details(page).getByRole('button', { name: /^Make \d+ parts$/ })
  await expect(make).toBeEnabled({ timeout: 60_000 })
  const count = Number(/\d+/.exec((await make.textContent()) ?? '')?.[0])
  expect(count).toBeGreaterThan(10_000)
  await make.click()
  const stored = async () => {
    const now = (await (await request.get(`/api/projects/${id}`)).json()) as {
      project: { schemes: Record<string, { parts: object }> }
    }
    return Object.values(now.project.schemes).map((s) => Object.keys(s.parts).length)
  }
  await expect.poll(stored, { timeout: 120_000 }).toEqual([count])
  await expect(details(page)).not.toContainText('Building from faces')
})
