import { byDefault } from '../model/reading.ts'
import type { Framework } from './framework.ts'
import { option, path, readingsWith, text } from './readings.ts'

const by = "Docusaurus's default"

/** Docusaurus. Checked against 3. Its settings come from configuration, not from variables. */
export const docusaurus: Framework = {
  name: 'docusaurus',
  title: 'Docusaurus',
  markers: ['@docusaurus/core'],
  configFiles: [
    'docusaurus.config.js',
    'docusaurus.config.ts',
    'docusaurus.config.mjs',
    'docusaurus.config.cjs',
  ],
  commands: ['docusaurus build'],
  router: 'history',
  environmentFiles: () => [],
  configArgument: () => ({}),
  environmentObjects: ['process.env'],
  read: ({ build, config }) =>
    readingsWith(by, {
      publishDirectory: path(option(build, 'out-dir') ?? byDefault('build', by)),
      siteAddress: text(config?.value ?? null, 'url'),
      basePath: text(config?.value ?? null, 'baseUrl') ?? byDefault('/', by),
    }),
  signs: { page: [/<meta name="?generator"? content="Docusaurus/] },
  fixes: { setBase: (base) => `baseUrl: '${base}',`, environmentFile: null },
}
