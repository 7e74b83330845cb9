import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    root: '.',
    globalSetup: ['scripts/lib/built.mjs'],
    setupFiles: ['core/testing/seeded.ts'],
    maxWorkers: '100%',
    testTimeout: 240_000,
    hookTimeout: 120_000,
    server: { deps: { inline: [] } },
    deps: { interopDefault: false },
    projects: [
      {
        extends: true,
        test: {
          name: 'core, cli, web',
          include: ['core/**/*.test.ts', 'cli/**/*.test.ts', 'web/src/**/*.test.ts'],
          // Nothing here keeps anything in a module: the files share what they import, which is half of their time otherwise.
          isolate: false,
          exclude: ['**/*.alone.test.ts', '**/node_modules/**'],
        },
      },
      // What the page has one of is kept in modules: these have theirs to themselves.
      { extends: true, test: { name: 'alone', include: ['web/src/**/*.alone.test.ts'] } },
      // Servers and databases of their own, in processes of their own.
      { extends: true, test: { name: 'server', include: ['server/**/*.test.ts'] } },
    ],
  },
})
