import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    root: '.',
    include: ['core/**/*.test.ts', 'server/**/*.test.ts', 'cli/**/*.test.ts', 'web/src/**/*.test.ts'],
    globalSetup: ['scripts/lib/built.mjs'],
    setupFiles: ['core/testing/seeded.ts'],
    // Nothing here keeps anything in a module: the files share what they import, which is half of their time otherwise.
    isolate: false,
    maxWorkers: '100%',
    testTimeout: 240_000,
    hookTimeout: 120_000,
    server: { deps: { inline: [] } },
    deps: { interopDefault: false },
  },
})
