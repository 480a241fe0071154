import { type Folded, member } from '../syntax/value.ts'
import { defineFramework } from './framework.ts'
import type { ProjectSources } from './project-sources.ts'
import { proxyPaths } from './readings.ts'
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
  refine: (project, { publishDirectory }) => {
    const devProxy = proxyPaths(member(bundlerOptions(project), 'viteOptions', 'server', 'proxy'))
    return {
      ...(devProxy && { devProxy }),
      ...(publishDirectory.certainty === 'default' && {
        publishDirectory: {
          ...publishDirectory,
          value: `${rootOf(project)}/.vuepress/dist`.replace(/^\//, ''),
        },
      }),
    }
  },
  signs: { page: [/<meta name="generator" content="VuePress/] },
  fixes: { setBase: (base) => `base: '${base}',`, environmentFile: null },
})

/** What the bundler's package is called with. */
function bundlerOptions({ config }: ProjectSources): Folded | null {
  const bundler = member(config?.value ?? null, 'bundler')
  return bundler?.kind === 'call' ? (bundler.args[0] ?? null) : null
}
