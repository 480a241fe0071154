/**
 * Wardoscope in a test runner: is this folder fit to ship? Importing it adds the matcher to `expect`.
 * @module wardoscope/vitest
 */
import { expect } from 'vitest'
import { type ShipExpectations, toBeClearToShip } from './matcher.ts'

export { type ShipExpectations, toBeClearToShip } from './matcher.ts'

expect.extend({ toBeClearToShip })

declare module 'vitest' {
  // biome-ignore lint/suspicious/noExplicitAny: the test runner declares it so
  interface Matchers<T = any> {
    /**
     * Whether a project or build folder may ship: checks it as the command line does, with the project's
     * configuration, and fails with what holds it.
     */
    toBeClearToShip(expected?: ShipExpectations): Promise<T>
  }
}
