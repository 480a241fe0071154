import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    include: ['src/**/*.test.ts', 'test/**/*.test.ts', 'examples/*/test/**/*.test.ts'],
    // An example takes the package by its name, as a stranger does.
    alias: { 'wardoscope/vitest': new URL('dist/vitest/index.js', import.meta.url).pathname },
    globalSetup: './test/support/fresh-build.ts',
    // Real builds and real installs are slow on a cold machine.
    testTimeout: 600_000,
    hookTimeout: 900_000,
    reporters: ['default', './test/support/count-reporter.ts'],
  },
})
