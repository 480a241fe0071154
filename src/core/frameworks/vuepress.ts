import { defineFramework } from './framework.ts'
import { viteArgument } from './vite.ts'
import { pagesRoot, settingsFiles } from './vitepress.ts'

const rootOf = pagesRoot('.vuepress')

/** VuePress. Checked against 2. Its output is within the directory of its pages, unless `dest` moves it. */
export const vuepress = defineFramework({
  name: 'vuepress',
  title: 'VuePress',
  over: ['vite'],
  markers: ['vuepress'],
  configFiles: settingsFiles('.vuepress'),
  commands: ['vuepress build'],
  router: 'history',
  environmentFiles: () => [],
  configArgument: viteArgument,
  environmentObjects: ['import.meta.env'],
  settings: {
    basePath: { config: ['base'], default: '/' },
    publishDirectory: { options: ['dest', 'd'], config: ['dest'], default: '.vuepress/dist' },
    prefixes: ['VITE_'],
  },
  refine: (project, { publishDirectory }) =>
    publishDirectory.certainty === 'default'
      ? {
          publishDirectory: {
            ...publishDirectory,
            value: `${rootOf(project)}/.vuepress/dist`.replace(/^\//, ''),
          },
        }
      : {},
  signs: { page: [/<meta name="generator" content="VuePress/] },
  fixes: { setBase: (base) => `base: '${base}',`, environmentFile: null },
})
