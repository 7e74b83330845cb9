import { defineConfig } from '@playwright/test'

/** The real page in Debian's Chromium, drawing in software, on a server with a database of its own. */
export default defineConfig({
  testDir: 'e2e',
  globalSetup: './e2e/setup.ts',
  // Two files at a time: each has projects of its own.
  workers: 2,
  fullyParallel: false,
  timeout: 120_000,
  retries: 0,
  expect: { timeout: 20_000 },
  reporter: [['list']],
  use: {
    baseURL: 'http://127.0.0.1:4191',
    viewport: { width: 1280, height: 800 },
    actionTimeout: 20_000,
    trace: 'off',
    launchOptions: {
      executablePath: '/usr/bin/chromium-headless-shell',
      args: [
        '--no-sandbox',
        '--use-gl=angle',
        '--use-angle=gl-egl',
        '--ignore-gpu-blocklist',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        // There is no graphics card: the page is painted by the processor at once, which costs it a third of what it costs
        // by way of a simulated card. The stage, which is drawn with WebGL, still has that card.
        '--disable-gpu-rasterization',
        '--disable-gpu-compositing',
      ],
    },
  },
})
