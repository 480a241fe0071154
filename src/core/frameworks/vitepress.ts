import { joinPath, joinUp } from '../model/folder.ts'
import { defineFramework } from './framework.ts'
import type { ProjectSources } from './project-sources.ts'
import { usualEnvironmentFiles } from './readings.ts'
import { viteArgument } from './vite.ts'

const endings = ['ts', 'mts', 'js', 'mjs']

/** Directories the pages usually are in. */
const usualRoots = ['', 'docs', 'doc', 'site', 'website']

/** VitePress. Checked against 1. Everything is relative to the directory of its pages. */
export const vitepress = defineFramework({
  name: 'vitepress',
  title: 'VitePress',
  over: ['vite'],
  markers: ['vitepress'],
  configFiles: usualRoots.flatMap((root) =>
    endings.map((ending) => joinPath(root, '.vitepress', `config.${ending}`)),
  ),
  commands: ['vitepress build'],
  router: 'history',
  environmentFiles: usualEnvironmentFiles,
  configArgument: viteArgument,
  environmentObjects: ['import.meta.env'],
  settings: {
    root: rootOf,
    publishDirectory: { options: ['outDir'], config: ['outDir'], default: '.vitepress/dist' },
    basePath: { options: ['base'], config: ['base'], default: '/' },
    prefixes: ['VITE_'],
    devProxy: ['vite.server.proxy'],
  },
  refine: (project, { environmentFiles }) => ({
    environmentFiles: environmentFiles.map((file) => joinUp(rootOf(project), file)),
  }),
  signs: { files: [/^hashmap\.json$/], page: [/<meta name="generator" content="VitePress/] },
  fixes: { setBase: (base) => `base: '${base}',`, environmentFile: 'docs/.env.production' },
})

/** The directory of the pages: the one that the command names, else the one that holds the configuration. */
function rootOf({ build, config }: ProjectSources): string {
  return build.words[0] ?? config?.file.replace(/\/?\.vitepress\/.*$/, '') ?? ''
}
