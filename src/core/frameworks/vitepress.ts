import { joinPath } from '../model/folder.ts'
import { byDefault } from '../model/reading.ts'
import { belowProject } from '../project/config/project-path.ts'
import { member } from '../syntax/value.ts'
import type { Framework } from './framework.ts'
import { mapped, memberNames, option, readingsWith, text, usualEnvironmentFiles } from './readings.ts'
import { viteArgument } from './vite.ts'

const by = "VitePress's default"
const endings = ['ts', 'mts', 'js', 'mjs']

/** Directories the pages usually are in. */
const usualRoots = ['', 'docs', 'doc', 'site', 'website']

/** VitePress. Checked against 1. Everything is relative to the directory of its pages. */
export const vitepress: Framework = {
  name: 'vitepress',
  title: 'VitePress',
  markers: ['vitepress'],
  configFiles: usualRoots.flatMap((root) =>
    endings.map((ending) => joinPath(root, '.vitepress', `config.${ending}`)),
  ),
  commands: ['vitepress build'],
  router: 'history',
  environmentFiles: usualEnvironmentFiles,
  configArgument: viteArgument,
  environmentObjects: ['import.meta.env'],
  read: ({ build, config }) => {
    const value = config?.value ?? null
    const root = build.words[0] ?? config?.file.replace(/\/?\.vitepress\/.*$/, '') ?? ''
    const outDir = option(build, 'outDir') ?? text(value, 'outDir') ?? byDefault('.vitepress/dist', by)
    return readingsWith(by, {
      publishDirectory: mapped(outDir, (directory) =>
        joinPath(directory.startsWith('/') ? '' : root, belowProject(directory) ?? directory),
      ),
      basePath: option(build, 'base') ?? text(value, 'base') ?? byDefault('/', by),
      prefixes: byDefault(['VITE_'], by),
      environmentFiles: usualEnvironmentFiles('production').map((file) => joinPath(root, file)),
      devProxy: memberNames(member(value, 'vite', 'server', 'proxy')) ?? byDefault([], by),
    })
  },
  signs: { files: [/^hashmap\.json$/], page: [/<meta name="generator" content="VitePress/] },
  fixes: { setBase: (base) => `base: '${base}',`, environmentFile: 'docs/.env.production' },
}
