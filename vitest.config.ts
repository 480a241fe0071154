import { availableParallelism } from 'node:os'
import { defineConfig } from 'vitest/config'

/** A browser draws with every processor there is: two such tests at once take longer than one after the other. */
const withBrowser = ['viewer', 'folder-desk', 'release-log', 'rehearse'].map((name) => `test/${name}.test.ts`)

export default defineConfig({
  test: {
    // An example takes the package by its name, as a stranger does.
    alias: { 'wardoscope/vitest': new URL('dist/vitest/index.js', import.meta.url).pathname },
    globalSetup: './test/support/fresh-build.ts',
    // Real builds and real installs are slow on a cold machine.
    testTimeout: 600_000,
    hookTimeout: 900_000,
    reporters: ['default', './test/support/count-reporter.ts'],
    projects: [
      {
        extends: true,
        test: {
          name: 'browser',
          include: withBrowser,
          maxWorkers: 1,
          sequence: { groupOrder: 1 },
        },
      },
      {
        extends: true,
        test: {
          name: 'others',
          include: ['src/**/*.test.ts', 'test/**/*.test.ts', 'examples/*/test/**/*.test.ts'],
          exclude: withBrowser,
          // Most wait for programs that they start.
          maxWorkers: Math.max(2, availableParallelism() - 1),
          sequence: { groupOrder: 2 },
        },
      },
    ],
  },
})
