import { defineConfig } from 'vitest/config'

/** Only tests of the sources themselves: nothing is built for them. */
export default defineConfig({
  root: process.cwd(),
  test: { testTimeout: 30_000, pool: 'threads', maxWorkers: 1, isolate: false },
})
