/**
 * Wardoscope in a build with webpack 5 or Rspack: looks at what the build just wrote.
 * @module wardoscope/webpack
 */
export type { WardoscopeOptions } from '../bundler/options.ts'
export { WardoscopePlugin } from './plugin.ts'
