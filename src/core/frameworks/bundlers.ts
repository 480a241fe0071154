import { directoryOf } from '../model/folder.ts'
import { byDefault, type Reading, stated } from '../model/reading.ts'
import { member } from '../syntax/value.ts'
import type { Framework, ProjectSources } from './framework.ts'
import { mapped, memberNames, option, path, placeOf, readingsWith, text } from './readings.ts'

const configs = (name: string): string[] =>
  ['js', 'mjs', 'cjs', 'ts', 'mts'].map((ending) => `${name}.config.${ending}`)

const common = {
  general: true,
  environmentFiles: (): string[] => [],
  environmentObjects: ['process.env'],
  signs: {},
} as const

/** webpack set up by hand. Checked against 5. */
export const webpack: Framework = {
  ...common,
  name: 'webpack',
  title: 'webpack',
  markers: ['webpack'],
  configFiles: [...configs('webpack'), 'webpack.prod.js', 'webpack.config.prod.js'],
  commands: ['webpack build', 'webpack-cli', 'webpack'],
  configArgument: (mode) => ({ mode, production: true }),
  read: ({ build, config }) => {
    const by = "webpack's default"
    const value = config?.value?.kind === 'list' ? (config.value.items[0] ?? null) : (config?.value ?? null)
    return readingsWith(by, {
      publishDirectory: path(
        option(build, 'output-path', 'o') ?? text(value, 'output', 'path') ?? byDefault('dist', by),
      ),
      basePath: publicPath(text(value, 'output', 'publicPath') ?? byDefault('auto', by)),
      mode: option(build, 'mode') ?? text(value, 'mode') ?? byDefault('production', by),
      devProxy: memberNames(member(value, 'devServer', 'proxy')) ?? byDefault([], by),
    })
  },
  fixes: { setBase: (base) => `output: { publicPath: '${base}' },`, environmentFile: null },
}

/** `auto` is worked out by the running script, from its own address. */
function publicPath(reading: NonNullable<ReturnType<typeof text>>): NonNullable<ReturnType<typeof text>> {
  return mapped(reading, (found) => (found === 'auto' || found === '' ? './' : found))
}

/** Rollup set up by hand. Checked against 4. It writes no page: the project's own page refers to its output. */
export const rollup: Framework = {
  ...common,
  name: 'rollup',
  title: 'Rollup',
  markers: ['rollup'],
  configFiles: configs('rollup'),
  commands: ['rollup'],
  configArgument: () => ({}),
  read: ({ build, config }) => {
    const by = "Rollup's default"
    const value = config?.value?.kind === 'list' ? (config.value.items[0] ?? null) : (config?.value ?? null)
    const file = option(build, 'file', 'o') ?? text(value, 'output', 'file')
    const directory =
      option(build, 'dir', 'd') ?? text(value, 'output', 'dir') ?? (file && mapped(file, directoryOf))
    return readingsWith(by, {
      publishDirectory: path(directory ?? byDefault('dist', by)),
      basePath: byDefault('./', by),
    })
  },
  fixes: { setBase: () => 'Refer to the output by relative URLs.', environmentFile: null },
}

/** esbuild, from its command line or a script of the project's. Checked against 0.25. */
export const esbuild: Framework = {
  ...common,
  name: 'esbuild',
  title: 'esbuild',
  markers: ['esbuild'],
  configFiles: [],
  commands: ['esbuild'],
  configArgument: () => ({}),
  read: async (project) => {
    const by = "esbuild's default"
    const { build } = project
    const said = (name: string, member: string): Promise<Reading<string> | null> =>
      fromScript(project, name, member)
    const file = await said('outfile', 'outfile')
    const directory = (await said('outdir', 'outdir')) ?? (file && mapped(file, directoryOf))
    return readingsWith(by, {
      publishDirectory: path(directory ?? byDefault('dist', by)),
      basePath:
        option(build, 'public-path') ?? (await said('public-path', 'publicPath')) ?? byDefault('./', by),
    })
  },
  fixes: { setBase: (base) => `--public-path=${base}`, environmentFile: null },
}

/** esbuild is often called from a script of the project, `node build.mjs`; its options are looked for there. */
async function fromScript(
  { build, text: read }: ProjectSources,
  name: string,
  member: string,
): Promise<Reading<string> | null> {
  const own = option(build, name)
  const script = /\bnode\s+(?:\.\/)?([\w./-]+\.[cm]?js)\b/.exec(build.script ?? '')?.[1]
  const source = own || script === undefined ? null : await read(script)
  const found =
    source && script ? placeOf(script, source, new RegExp(`\\b${member}:\\s*['"\`]([^'"\`]+)['"\`]`)) : null
  return own ?? (found && stated(found.value, found.place))
}
