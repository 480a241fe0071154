import { joinPath, joinUp } from '../model/folder.ts'
import { defineFramework } from './framework.ts'
import type { ProjectSources } from './project-sources.ts'
import { usualEnvironmentFiles } from './readings.ts'
import { viteArgument } from './vite.ts'

const endings = ['ts', 'mts', 'js', 'mjs']

/** Directories the pages usually are in. */
const usualRoots = ['', 'docs', 'doc', 'site', 'website']

/** The configuration files of a site whose settings are in a directory among its pages. */
export function settingsFiles(directory: string): string[] {
  return usualRoots.flatMap((root) => endings.map((ending) => joinPath(root, directory, `config.${ending}`)))
}

/** The directory of the pages: the one that the command names, else the one that holds the configuration. */
export function pagesRoot(directory: string): (project: Pick<ProjectSources, 'build' | 'config'>) => string {
  return ({ build, config }) => {
    const at = config?.file.indexOf(`${directory}/`) ?? -1
    return build.words[0] ?? (config && at >= 0 ? joinPath(config.file.slice(0, at)) : '')
  }
}

const rootOf = pagesRoot('.vitepress')

/** VitePress. Checked against 1. Everything is relative to the directory of its pages. */
export const vitepress = defineFramework({
  name: 'vitepress',
  title: 'VitePress',
  over: ['vite'],
  markers: ['vitepress'],
  configFiles: settingsFiles('.vitepress'),
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
  fixes: {
    setBase: (base) => `base: '${base}',`,
    publicUrl: { write: (path) => `withBase('/${path}')`, from: "import { withBase } from 'vitepress'" },
    environmentFile: '.env.production',
  },
})
