import { expect, test } from '@playwright/test'
import { spawnSync } from 'node:child_process'
import { App } from './app'
import { manyMasses } from '../scripts/campaign/many-masses'

test('a second start on one data folder says so and ends, and the first one works on', async ({ request }) => {
  const app = new App(4203)
  await app.start()
  const second = spawnSync('node', ['scripts/start.mjs'], {
    env: { ...process.env, PORT: '4204', GEOTOME_DATA: app.folder },
    encoding: 'utf8',
    timeout: 60_000,
  })
  expect([second.status, second.stderr]).toEqual([
    1,
    expect.stringMatching(/^Geotome runs on the folder .* already\. Stop that one first/),
  ])
  expect(await (await request.get(`${app.url}/api/health`)).json()).toMatchObject({ server: 'up', database: 'up' })
  await app.stop()
})

test('Ctrl-C ends all of it within five seconds, amid a long study too', async ({ request }) => {
  test.setTimeout(180_000)
  const app = new App(4205)
  await app.start()
  const imported = await request.post(`${app.url}/api/projects/import`, {
    headers: { 'content-type': 'application/octet-stream' },
    data: manyMasses(500, 199),
    timeout: 120_000,
  })
  const { id } = (await imported.json()) as { id: string }
  const study = request.get(`${app.url}/api/projects/${id}/export/csv`, { timeout: 120_000 }).then(
    () => 'answered',
    () => 'ended',
  )
  await new Promise((done) => setTimeout(done, 1500))
  const started = Date.now()
  await app.stop()
  expect(Date.now() - started).toBeLessThan(5000)
  expect(await study).toBe('ended')
})
