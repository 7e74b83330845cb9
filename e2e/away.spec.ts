import { expect, test } from '@playwright/test'
import { spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { App } from './app'
import { drawRectangle, figure, newProject, saved, settled, typeField } from './page'

test('while the server is away edits are kept in the window, and stored when it is back', async ({ page, request }) => {
  test.setTimeout(180_000)
  const app = new App(4194)
  await app.start()
  const { id } = (await (
    await request.post(`${app.url}/api/projects`, { data: { name: 'Away', unit: 'm', siteArea: 100 } })
  ).json()) as { id: string }
  await page.goto(`${app.url}/p/${id}/form`)
  await expect(figure(page, 'total')).toBeVisible()
  await app.killAll()
  await typeField(page, 'headroom', '2.2')
  await expect(page.locator('[data-saved="away"]')).toContainText('kept here')
  await typeField(page, 'site area', '250')
  await app.start()
  await saved(page)
  const stored = (await (await request.get(`${app.url}/api/projects/${id}`)).json()) as {
    seq: number
    project: { headroom: number; siteArea: number }
  }
  expect(stored).toMatchObject({ seq: 2, project: { headroom: 2.2, siteArea: 250 } })
  await app.stop()
})

test('an idle connection is kept longer than browsers keep it: no request falls into the moment in which the server ends one', async ({
  request,
}) => {
  const kept = (await request.get('/api/health')).headers()['keep-alive']
  expect(Number(/^timeout=(\d+)$/.exec(kept ?? '')?.[1])).toBeGreaterThan(300)
})

test('a start that cannot succeed ends with one clear sentence', () => {
  const start = (env: Record<string, string>) =>
    spawnSync('node', ['scripts/start.mjs'], { env: { ...process.env, ...env }, encoding: 'utf8', timeout: 60_000 })
  const busy = start({ PORT: '4191', GEOTOME_DATA: '/tmp/gt-busy' })
  expect([busy.status, busy.stderr]).toEqual([
    1,
    'Port 4191 is taken by another program. Stop it, or choose another port: PORT=4192 npm start\n',
  ])
  expect(start({ PORT: 'front' }).stderr).toMatch(/^PORT is "front"\. Give a whole number from 1 to 65535\.\n$/)
  expect(start({ PORT: '4195', GEOTOME_DATA: '/dev/null/x' }).stderr).toMatch(
    /^The folder \/dev\/null\/x cannot be written to .*\n$/,
  )
  const nobody = start({ PORT: '4195', GEOTOME_DATA: '/tmp/gt-url', DATABASE_URL: 'mysql://a:b@127.0.0.1:9/none' })
  expect([nobody.status, nobody.stderr]).toEqual([
    1,
    'The database does not answer at DATABASE_URL. Start it, or leave DATABASE_URL out to use the private one.\n',
  ])
})

test('what was not stored yet outlives the page: it is kept by the browser, counted, and sent when the server is back', async ({
  page,
  request,
  context,
}) => {
  test.setTimeout(180_000)
  const app = new App(4196)
  await app.start()
  const { id } = (await (
    await request.post(`${app.url}/api/projects`, { data: { name: 'Outbox', unit: 'm', siteArea: 100 } })
  ).json()) as { id: string }
  await page.goto(`${app.url}/p/${id}/form`)
  await expect(figure(page, 'total')).toBeVisible()
  // The server answers, but cannot do its part.
  await page.route('**/edits', (route) =>
    route.request().method() === 'POST'
      ? route.fulfill({ status: 500, contentType: 'application/problem+json', body: '{"detail":"no"}' })
      : route.continue(),
  )
  await typeField(page, 'headroom', '2.3')
  await expect(page.locator('[data-saved="away"]')).toContainText('1 kept here')
  await typeField(page, 'site area', '333')
  await expect(page.locator('[data-saved="away"]')).toContainText('2 kept here')
  await page.close()
  // In another window of the browser, later.
  const later = await context.newPage()
  await later.goto(`${app.url}/p/${id}/form`)
  await saved(later)
  await expect
    .poll(
      async () =>
        (
          (await (await request.get(`${app.url}/api/projects/${id}`)).json()) as {
            project: { headroom: number; siteArea: number }
          }
        ).project,
    )
    .toMatchObject({ headroom: 2.3, siteArea: 333 })
  expect(((await (await request.get(`${app.url}/api/projects/${id}`)).json()) as { seq: number }).seq).toBe(2)
  await app.stop()
})

test('a database that dies is started again; a folder that holds something else is never touched', async ({
  request,
}) => {
  test.setTimeout(180_000)
  const app = new App(4197)
  await app.start()
  await request.post(`${app.url}/api/projects`, { data: { name: 'Before', unit: 'm', siteArea: null } })
  const { pid } = JSON.parse(readFileSync(join(app.folder, 'mariadb.json'), 'utf8')) as { pid: number }
  process.kill(pid, 'SIGKILL')
  await expect
    .poll(
      async () =>
        (
          await request.post(`${app.url}/api/projects`, { data: { name: 'After', unit: 'm', siteArea: null } })
        ).status(),
      { timeout: 60_000 },
    )
    .toBe(201)
  expect(
    ((await (await request.get(`${app.url}/api/projects`)).json()) as { name: string }[]).map((p) => p.name),
  ).toEqual(expect.arrayContaining(['Before', 'After']))
  // What is known of the database is damaged: it is found by its own folder.
  await app.killAll()
  writeFileSync(join(app.folder, 'mariadb.json'), '{"pid": 12')
  await app.start()
  expect(
    ((await (await request.get(`${app.url}/api/projects`)).json()) as { name: string }[]).map((p) => p.name),
  ).toContain('After')
  await app.stop()

  const folder = mkdtempSync(join(tmpdir(), 'gt-other-'))
  mkdirSync(join(folder, 'mariadb'))
  writeFileSync(join(folder, 'mariadb', 'thesis.txt'), 'ten years of work')
  const refused = spawnSync('node', ['scripts/start.mjs'], {
    env: { ...process.env, PORT: '4198', GEOTOME_DATA: folder },
    encoding: 'utf8',
    timeout: 60_000,
  })
  expect([refused.status, refused.stderr]).toEqual([
    1,
    expect.stringMatching(/is not empty, and holds no database\. Nothing in it was touched\./),
  ])
  expect(readFileSync(join(folder, 'mariadb', 'thesis.txt'), 'utf8')).toBe('ten years of work')
  const open = spawnSync('node', ['scripts/start.mjs'], {
    env: { ...process.env, PORT: '4198', HOST: '0.0.0.0', GEOTOME_DATA: mkdtempSync(join(tmpdir(), 'gt-open-')) },
    encoding: 'utf8',
    timeout: 60_000,
  })
  expect([open.status, open.stderr]).toEqual([1, expect.stringMatching(/no sign-in yet.*GEOTOME_OPEN=1/)])
})

test('a computation that dies is started again with its project, and says so', async ({ page }) => {
  await newProject(page, 'Dying')
  await drawRectangle(page, [0, 0], '20', '10', '6')
  await expect(figure(page, 'total')).toHaveText('200.00 m²')
  const study = page.workers().find((w) => w.url().includes('study-worker'))
  // It goes without a word, as one that has no memory left.
  await study?.evaluate(() => setTimeout(() => self.close()))
  await expect(page.getByText(/computation had died and was started again/)).toBeVisible()
  await typeField(page, 'width', '30')
  await expect(figure(page, 'total')).toHaveText('300.00 m²')
})

test('what draws is started again when it dies, and draws the same', async ({ page }) => {
  await newProject(page, 'Drawn again')
  await drawRectangle(page, [0, 0], '20', '10', '6')
  await settled(page)
  const canvas = page.locator('[data-fitted] canvas')
  const drawn = () => canvas.screenshot({ animations: 'disabled' })
  await page.mouse.move(640, 2)
  let before = await drawn()
  let same = 0
  // Drawn rough at first, and smooth when it has rested: what stays while it is looked at again, seconds apart, is the smooth one.
  await expect(async () => {
    const now = await drawn()
    same = now.equals(before) ? same + 1 : 0
    before = now
    expect(same).toBeGreaterThan(1)
  }).toPass({ intervals: [2000], timeout: 60_000 })
  const drawing = page.workers().find((w) => w.url().includes('drawing-worker'))
  await drawing?.evaluate(() => setTimeout(() => self.close()))
  await expect(page.getByText(/What draws the views had died and was started again/)).toBeVisible()
  await page.mouse.move(640, 2)
  await expect(page.getByText(/What draws the views had died/)).toBeHidden({ timeout: 40_000 })
  await expect(async () => expect((await drawn()).equals(before)).toBe(true)).toPass({ timeout: 40_000 })
  await typeField(page, 'width', '30')
  await expect(figure(page, 'total')).toHaveText('300.00 m²')
  await expect(async () => expect((await drawn()).equals(before)).toBe(false)).toPass()
})

test('where the browser cannot draw, it says so, and the figures go on', async ({ page }) => {
  await page.addInitScript(() => {
    Reflect.deleteProperty(HTMLCanvasElement.prototype, 'transferControlToOffscreen')
  })
  await newProject(page, 'Not drawn')
  await expect(page.getByText(/This browser cannot draw the views/)).toBeVisible()
  await drawRectangle(page, [0, 0], '20', '10', '6')
  await expect(figure(page, 'total')).toHaveText('200.00 m²')
})
