import { defineFramework } from './framework.ts'

/** Docusaurus. Checked against 3. Its settings come from configuration, not from variables. */
export const docusaurus = defineFramework({
  name: 'docusaurus',
  title: 'Docusaurus',
  over: ['vite', 'parcel'],
  markers: ['@docusaurus/core'],
  configFiles: ['js', 'ts', 'mjs', 'cjs'].map((ending) => `docusaurus.config.${ending}`),
  commands: ['docusaurus build'],
  router: 'history',
  environmentObjects: ['process.env'],
  settings: {
    publishDirectory: { options: ['out-dir'], default: 'build' },
    basePath: { config: ['baseUrl'], default: '/' },
    siteAddress: { config: ['url'] },
  },
  signs: { page: [/<meta name="?generator"? content="Docusaurus/] },
  fixes: {
    setBase: (base) => `baseUrl: '${base}',`,
    publicUrl: {
      write: (path) => `useBaseUrl('/${path}')`,
      from: "import useBaseUrl from '@docusaurus/useBaseUrl'",
    },
    setSite: ({ origin }) => `url: '${origin}',`,
    environmentFile: null,
  },
})
