import { chromium } from '@playwright/test'
// usage: node shot.tmp.mjs out.png url [theme] [WxH] [script]
const [out, url, theme = 'paper', size = '1280x800', script = ''] = process.argv.slice(2)
const [width, height] = size.split('x').map(Number)
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--use-gl=angle', '--use-angle=gl-egl', '--ignore-gpu-blocklist', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'] })
const page = await browser.newPage({ viewport: { width, height } })
page.on('console', (m) => { if (m.type() === 'error' || m.type() === 'warning') console.log(m.type(), m.text()) })
page.on('pageerror', (e) => console.log('pageerror', e.message))
await page.addInitScript((t) => localStorage.setItem('geotome-theme', t), theme)
await page.goto(url)
await page.waitForTimeout(2500)
if (script) { await (new Function('page', `return (async () => { ${script} })()`))(page); await page.waitForTimeout(1200) }
await page.screenshot({ path: out })
await browser.close()
