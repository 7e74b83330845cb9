import { chromium } from '@playwright/test'

// Drags a level of the spine in the real page and says how long the figures take to follow and what a move costs the page.
// With a server up:  npm run drag -- http://localhost:4180/p/ID/slice "First"
const [address, name = 'First', moves = '40'] = process.argv.slice(2)
if (!address) {
  process.stderr.write('Give the address of a project at its Slice desk, and the name of a level.\n')
  process.exit(1)
}
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium-headless-shell',
  args: ['--no-sandbox', '--use-gl=angle', '--use-angle=gl-egl', '--ignore-gpu-blocklist'],
})
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.goto(address)
await page.locator('footer[data-settled="true"]').waitFor()
await page.locator('[data-fitted="true"]').waitFor()
const box = await page.locator('aside[aria-label="Spine"]').getByText(name, { exact: true }).first().boundingBox()
if (!box) throw new Error(`There is no level named ${name}.`)
const [x, y] = [200, box.y + box.height + 2]
await page.evaluate(() => {
  const seen = { moves: [], tasks: [] }
  window.measured = seen
  const figures = document.querySelector('footer[data-study]')
  let last = figures.dataset.study
  new PerformanceObserver((list) => seen.tasks.push(...list.getEntries().map((e) => e.duration))).observe({
    type: 'longtask',
  })
  window.addEventListener('pointermove', () => seen.moves.push({ at: performance.now(), shown: null }), true)
  new MutationObserver(() => {
    if (figures.dataset.study === last) return
    last = figures.dataset.study
    for (const move of seen.moves) move.shown ??= performance.now()
  }).observe(figures, { attributes: true })
})
const cdp = await page.context().newCDPSession(page)
await cdp.send('Performance.enable')
const script = async () =>
  (await cdp.send('Performance.getMetrics')).metrics.find((m) => m.name === 'ScriptDuration')?.value ?? 0
await page.mouse.move(x, y)
await page.mouse.down()
const before = await script()
for (let i = 1; i <= Number(moves); i++) {
  await page.mouse.move(x, y - i * 1.5)
  await page.waitForTimeout(250)
}
const spent = ((await script()) - before) * 1000
const { moves: all, tasks } = await page.evaluate(() => window.measured)
await page.keyboard.press('Escape')
await page.mouse.up()
const late = all
  .filter((m) => m.shown !== null)
  .map((m) => m.shown - m.at)
  .sort((a, b) => a - b)
const at = (p) => (late[Math.min(late.length - 1, Math.floor(late.length * p))] ?? NaN).toFixed(0)
process.stdout.write(
  `figures after ${at(0.5)} ms (median), ${at(0.95)} ms (p95) · script ${(spent / Number(moves)).toFixed(1)} ms a move · ` +
    `${tasks.length} tasks over 50 ms, longest ${Math.max(0, ...tasks).toFixed(0)} ms\n`,
)
await browser.close()
