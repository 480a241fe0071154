/**
 * Wardoscope in a build with Vite: looks at what the build just wrote.
 * @module wardoscope/vite
 */
export type { WardoscopeOptions } from '../bundler/options.ts'
export { wardoscope } from './plugin.ts'
