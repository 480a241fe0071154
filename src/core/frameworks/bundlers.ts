import { directoryOf } from '../model/folder.ts'
import type { Reading } from '../model/reading.ts'
import { type Folded, member } from '../syntax/value.ts'
import { defineFramework } from './framework.ts'
import type { ProjectSources } from './project-sources.ts'
import { buildScript, mapped, option, path, text, textIn, usualEnvironmentFiles } from './readings.ts'
import { readSettings, type SettingsTable } from './settings.ts'

const configs = (name: string): string[] =>
  ['js', 'mjs', 'cjs', 'ts', 'mts'].map((ending) => `${name}.config.${ending}`)

const common = { general: true, environmentObjects: ['process.env'] } as const

/** Of several configurations in one file: the one that writes a page, else the first that is for a browser. */
function siteOf(value: Folded | null): Folded | null {
  if (value?.kind !== 'list') return value
  const forBrowsers = value.items.filter(
    (each) => !/^(?:async-)?node|^electron/.test(text(each, 'target')?.value ?? ''),
  )
  return forBrowsers.find(writesPage) ?? forBrowsers[0] ?? value.items[0] ?? null
}

function writesPage(config: Folded): boolean {
  const plugins = member(config, 'plugins')
  return (
    plugins?.kind === 'list' &&
    plugins.items.some((each) => each.kind === 'call' && /html/i.test(each.callee))
  )
}

const webpackSettings: SettingsTable = {
  publishDirectory: { options: ['output-path', 'o'], config: ['output.path'], default: 'dist' },
  basePath: { config: ['output.publicPath'], default: 'auto' },
  mode: { options: ['mode'], config: ['mode'] },
  devProxy: ['devServer.proxy'],
}

/** What configurations of webpack's form have in common. */
const likeWebpack = {
  ...common,
  configArgument: (mode: string) => ({ mode, production: true }),
  settings: webpackSettings,
  refine: (project: ProjectSources) => {
    const config = siteOf(project.config?.value ?? null)
    const readings = readSettings(webpackSettings, project, config, 'the default', () => [])
    // `auto` is worked out by the running script, from its own address.
    const basePath = mapped(readings.basePath, (found) => (found === 'auto' || found === '' ? './' : found))
    return { ...readings, basePath }
  },
  fixes: { setBase: (base: string) => `output: { publicPath: '${base}' },`, environmentFile: null },
} as const

/** webpack set up by hand. Checked against 5. */
export const webpack = defineFramework({
  ...likeWebpack,
  name: 'webpack',
  title: 'webpack',
  markers: ['webpack'],
  configFiles: [...configs('webpack'), 'webpack.prod.js', 'webpack.config.prod.js'],
  commands: ['webpack build', 'webpack-cli', 'webpack'],
})

/** Rspack set up by hand. Checked against 2. Its configuration is of webpack's form. */
export const rspack = defineFramework({
  ...likeWebpack,
  name: 'rspack',
  title: 'Rspack',
  over: ['webpack'],
  markers: ['@rspack/cli'],
  configFiles: configs('rspack'),
  commands: ['rspack build', 'rspack'],
})

/** Rollup set up by hand. Checked against 4. It writes no page: the project's own page refers to its output. */
export const rollup = defineFramework({
  ...common,
  name: 'rollup',
  title: 'Rollup',
  over: ['esbuild'],
  markers: ['rollup'],
  configFiles: configs('rollup'),
  commands: ['rollup'],
  settings: { publishDirectory: { default: 'dist' }, basePath: { default: './' } },
  refine: ({ build, config }) => {
    const value = siteOf(config?.value ?? null)
    const file = option(build, 'file', 'o') ?? text(value, 'output', 'file')
    const directory =
      option(build, 'dir', 'd') ?? text(value, 'output', 'dir') ?? (file && mapped(file, directoryOf))
    return directory ? { publishDirectory: path(directory) } : {}
  },
  fixes: {
    setBase: null,
    noBase: 'Rollup sets no base path: refer to its output by relative URLs.',
    keeps: /./,
    environmentFile: null,
  },
})

/** esbuild, from its command line or a script of the project's. Checked against 0.25. */
export const esbuild = defineFramework({
  ...common,
  name: 'esbuild',
  title: 'esbuild',
  markers: ['esbuild'],
  commands: ['esbuild'],
  settings: { publishDirectory: { default: 'dist' }, basePath: { default: './' } },
  refine: async (project) => {
    const file = await fromScript(project, 'outfile', 'outfile')
    const directory = (await fromScript(project, 'outdir', 'outdir')) ?? (file && mapped(file, directoryOf))
    const base = await fromScript(project, 'public-path', 'publicPath')
    return { ...(directory && { publishDirectory: path(directory) }), ...(base && { basePath: base }) }
  },
  fixes: {
    setBase: (base) => `--public-path=${base}`,
    baseIn: 'command',
    keeps: /./,
    environmentFile: null,
  },
})

/** esbuild is often called from a script of the project, `node build.mjs`; its options are looked for there. */
async function fromScript(
  { build, foldMember }: ProjectSources,
  name: string,
  member: string,
): Promise<Reading<string | null> | null> {
  const own = option(build, name)
  const script = own ? null : buildScript(build)
  return script === null ? own : textIn(await foldMember(script, member))
}

/** Bun's own bundler, from its command line. Checked against 1.4. It inlines what `--env` names; a variable that is not set stays a read. */
export const bun = defineFramework({
  ...common,
  name: 'bun',
  title: 'Bun',
  markers: [],
  commands: ['bun build'],
  leavesUnset: true,
  environmentFiles: usualEnvironmentFiles,
  settings: {
    publishDirectory: { options: ['outdir'], default: 'dist' },
    basePath: { options: ['public-path'], default: './' },
  },
  refine: ({ build }) => {
    const inlined = option(build, 'env')
    return inlined ? { prefixes: mapped(inlined, prefixesIn) } : {}
  },
  fixes: {
    setBase: (base) => `--public-path=${base}`,
    baseIn: 'command',
    environmentFile: '.env',
    production: '--production',
  },
})

/** `inline`, or the beginning of names: `PUBLIC_*`. */
function prefixesIn(inlined: string | null): string[] | null {
  if (inlined === null) return null
  return inlined === 'inline' ? [''] : inlined.endsWith('*') ? [inlined.slice(0, -1)] : []
}
