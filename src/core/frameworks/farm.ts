import { defineFramework } from './framework.ts'
import { usualEnvironmentFiles } from './readings.ts'

/** Farm. Checked against 1.7. */
export const farm = defineFramework({
  name: 'farm',
  title: 'Farm',
  over: ['vite'],
  markers: ['@farmfe/core', '@farmfe/cli'],
  configFiles: ['ts', 'js', 'mjs', 'mts', 'cjs'].map((ending) => `farm.config.${ending}`),
  commands: ['farm build'],
  beginsWithPage: true,
  shipsMaps: true,
  environmentFiles: usualEnvironmentFiles,
  environmentObjects: ['import.meta.env', 'process.env'],
  settings: {
    publishDirectory: { config: ['compilation.output.path'], default: 'dist' },
    basePath: { config: ['compilation.output.publicPath'], default: '/' },
    mode: { options: ['mode', 'm'] },
    prefixes: ['FARM_', 'VITE_'],
    prefixesIn: 'envPrefix',
    devProxy: ['server.proxy'],
  },
  fixes: {
    setBase: (base) => `compilation: { output: { publicPath: '${base}' } },`,
    environmentFile: '.env.production',
    noMaps: 'set compilation.sourcemap to false',
  },
})
