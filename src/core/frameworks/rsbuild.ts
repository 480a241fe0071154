import { defineFramework } from './framework.ts'
import { usualEnvironmentFiles } from './readings.ts'

/** Rsbuild. Checked against 2. Its assets follow the base path unless they have a prefix of their own. */
export const rsbuild = defineFramework({
  name: 'rsbuild',
  title: 'Rsbuild',
  over: ['vite', 'parcel'],
  markers: ['@rsbuild/core'],
  configFiles: ['ts', 'js', 'mjs', 'cjs', 'mts', 'cts'].map((ending) => `rsbuild.config.${ending}`),
  commands: ['rsbuild build'],
  environmentFiles: usualEnvironmentFiles,
  configArgument: (mode) => ({ env: mode, command: 'build', envMode: mode }),
  environmentObjects: ['import.meta.env', 'process.env'],
  settings: {
    publishDirectory: {
      options: ['dist-path'],
      config: ['output.distPath.root', 'output.distPath'],
      default: 'dist',
    },
    basePath: { options: ['base'], config: ['output.assetPrefix', 'server.base'], default: '/' },
    mode: { options: ['env-mode'] },
    prefixes: ['PUBLIC_'],
    devProxy: ['server.proxy'],
  },
  signs: { files: [/^static\/js\/index\.[\da-f]{8,10}\.js$/] },
  fixes: { setBase: (base) => `server: { base: '${base}' },`, environmentFile: '.env.production' },
})
