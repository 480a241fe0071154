import { byDefault } from '../model/reading.ts'
import { defineFramework } from './framework.ts'
import { text } from './readings.ts'

/** Umi, and Umi Max. Checked against 4.7. Its files are below the public path, its routes below the base of its router. */
export const umi = defineFramework({
  name: 'umi',
  title: 'Umi',
  over: ['vite'],
  markers: ['umi', '@umijs/max'],
  configFiles: ['.umirc.ts', '.umirc.js', 'config/config.ts', 'config/config.js'],
  configOptions: [],
  commands: ['umi build', 'max build'],
  router: 'history',
  environmentFiles: () => ['.env', '.env.local'],
  environmentObjects: ['process.env'],
  settings: {
    publishDirectory: { config: ['outputPath'], default: 'dist' },
    basePath: { config: ['publicPath'], default: '/' },
    prefixes: ['UMI_APP_'],
    devProxy: ['proxy'],
  },
  refine: ({ config }) => {
    const own = config?.value ?? null
    const kind = text(own, 'history', 'type')
    const base = text(own, 'base') ?? byDefault('/', "Umi's default")
    return kind?.value === 'hash'
      ? { router: { ...kind, value: 'hash' as const } }
      : { routerBase: { base, write: (path) => `base: '${path}',` } }
  },
  fixes: {
    setBase: (base) => `publicPath: '${base}',`,
    newConfig: (setting) => ({ file: '.umirc.ts', text: `export default {\n  ${setting}\n}\n` }),
    publicUrl: { write: (path) => `\`\${process.env.PUBLIC_PATH}${path}\`` },
    environmentFile: '.env',
  },
})
