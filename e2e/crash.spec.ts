import { expect, test } from '@playwright/test'
import { App } from './app'

interface Opened {
  seq: number
  project: { schemes: Record<string, { id: string }>; name: string }
}

test('everything acknowledged is there after the server and its database were killed between edits', async ({
  request,
  page,
}) => {
  test.setTimeout(180_000)
  const app = new App(4193)
  await app.start()
  const made = (await (
    await request.post(`${app.url}/api/projects`, { data: { name: 'Crash', unit: 'm', siteArea: null } })
  ).json()) as { id: string }
  let acknowledged = 0
  for (let round = 0; round < 3; round++) {
    let killing: Promise<void> | null = null
    for (let i = 0; i < 12; i++) {
      const name = `Name ${acknowledged + 1}`
      const sent = request
        .post(`${app.url}/api/projects/${made.id}/edits`, {
          data: {
            id: `edit-${acknowledged + 1}`,
            author: 'tester',
            label: 'name',
            edit: { edit: 'project.change', set: { name } },
          },
          timeout: 5000,
        })
        .then(
          (r) => r.status(),
          () => 0,
        )
      if (i === 4 + round * 3) killing = app.killAll()
      if ((await sent) !== 201) break
      acknowledged++
    }
    await killing
    await app.start()
    const opened = (await (await request.get(`${app.url}/api/projects/${made.id}?author=tester`)).json()) as Opened
    // The edit that was under way when the kill came may have been stored without its acknowledgement reaching us.
    expect([acknowledged, acknowledged + 1]).toContain(opened.seq)
    expect(opened.project.name).toBe(`Name ${opened.seq}`)
    acknowledged = opened.seq
  }
  expect(acknowledged).toBeGreaterThan(12)
  await page.goto(`${app.url}/p/${made.id}/form`)
  await expect(page.getByRole('complementary', { name: 'Details' }).getByLabel('name', { exact: true })).toHaveValue(
    `Name ${acknowledged}`,
  )
  await app.stop()
})
