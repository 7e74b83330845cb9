import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    root: '.',
    include: ['core/**/*.test.ts', 'server/**/*.test.ts', 'cli/**/*.test.ts', 'web/src/**/*.test.ts'],
    setupFiles: ['core/testing/seeded.ts'],
    testTimeout: 60_000,
    hookTimeout: 60_000,
    server: { deps: { inline: [] } },
    deps: { interopDefault: false },
  },
})
