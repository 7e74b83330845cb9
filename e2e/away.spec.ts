import { expect, test } from '@playwright/test'
import { spawnSync } from 'node:child_process'
import { App } from './app'
import { figure, saved, typeField } from './page'

test('while the server is away edits are kept in the window, and stored when it is back', async ({ page, request }) => {
  test.setTimeout(180_000)
  const app = new App(4194)
  await app.start()
  const { id } = await (await request.post(`${app.url}/api/projects`, { data: { name: 'Away', unit: 'm', siteArea: 100 } })).json() as { id: string }
  await page.goto(`${app.url}/p/${id}/form`)
  await expect(figure(page, 'total')).toBeVisible()
  await app.killAll()
  await typeField(page, 'headroom', '2.2')
  await expect(page.locator('[data-saved="away"]')).toContainText('kept here')
  await typeField(page, 'site area', '250')
  await app.start()
  await saved(page)
  const stored = await (await request.get(`${app.url}/api/projects/${id}`)).json() as { seq: number; project: { headroom: number; siteArea: number } }
  expect(stored).toMatchObject({ seq: 2, project: { headroom: 2.2, siteArea: 250 } })
  await app.stop()
})

test('a start that cannot succeed ends with one clear sentence', () => {
  const start = (env: Record<string, string>) => spawnSync('node', ['scripts/start.mjs'], { env: { ...process.env, ...env }, encoding: 'utf8', timeout: 60_000 })
  const busy = start({ PORT: '4191', GEOTOME_DATA: '/tmp/gt-busy' })
  expect([busy.status, busy.stderr]).toEqual([1, 'Port 4191 is taken by another program. Stop it, or choose another port: PORT=4192 npm start\n'])
  expect(start({ PORT: 'front' }).stderr).toMatch(/^PORT is "front"\. Give a whole number from 1 to 65535\.\n$/)
  expect(start({ PORT: '4195', GEOTOME_DATA: '/dev/null/x' }).stderr).toMatch(/^The folder \/dev\/null\/x cannot be written to .*\n$/)
  const nobody = start({ PORT: '4195', GEOTOME_DATA: '/tmp/gt-url', DATABASE_URL: 'mysql://a:b@127.0.0.1:9/none' })
  expect([nobody.status, nobody.stderr]).toEqual([1, 'The database does not answer at DATABASE_URL. Start it, or leave DATABASE_URL out to use the private one.\n'])
})
