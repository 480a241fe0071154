import type { Reporter, TestModule } from 'vitest/node'

/** Ends the run with one plain line that counts the tests, for whatever reads the output. */
export default class CountReporter implements Reporter {
  onTestRunEnd(modules: readonly TestModule[], errors: readonly unknown[]): void {
    let passed = 0
    let failed = errors.length
    for (const module of modules) {
      for (const test of module.children.allTests()) {
        const { state } = test.result()
        if (state === 'passed') passed++
        else if (state === 'failed') failed++
      }
      if (module.errors().length > 0) failed++
    }
    // After the default reporter's own summary.
    process.once('exit', () => process.stdout.write(`\n${passed} passed, ${failed} failed\n`))
  }
}
