import { defineFramework } from './framework.ts'

/** Rspress. Checked against 2. It reads no environment files of its own. */
export const rspress = defineFramework({
  name: 'rspress',
  title: 'Rspress',
  over: ['rsbuild', 'vite', 'parcel'],
  markers: ['@rspress/core', 'rspress'],
  configFiles: ['ts', 'js', 'mjs', 'cjs', 'mts', 'cts'].map((ending) => `rspress.config.${ending}`),
  commands: ['rspress build'],
  router: 'history',
  environmentFiles: () => [],
  configArgument: (mode) => ({ env: mode, command: 'build', envMode: mode }),
  environmentObjects: ['import.meta.env', 'process.env'],
  settings: {
    publishDirectory: { config: ['outDir'], default: 'doc_build' },
    basePath: { options: ['base'], config: ['base'], default: '/' },
    siteAddress: { config: ['siteOrigin'] },
    prefixes: ['PUBLIC_'],
    devProxy: ['builderConfig.server.proxy'],
  },
  signs: { page: [/<meta name="generator" content="Rspress/] },
  fixes: {
    setBase: (base) => `base: '${base}',`,
    setSite: ({ origin }) => `siteOrigin: '${origin}',`,
    environmentFile: null,
  },
})
