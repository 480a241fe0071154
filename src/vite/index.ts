/**
 * Wardoscope in a build with Vite: looks at what the build just wrote.
 * @module wardoscope/vite
 */
export { type WardoscopeOptions, wardoscope } from './plugin.ts'
