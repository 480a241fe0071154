import { byDefault, computed, inferred, type Reading, stated } from '../model/reading.ts'
import { namedPages } from '../project/routes/file-routes.ts'
import { type Folded, member } from '../syntax/value.ts'
import type { Framework, OutputKind, ProjectSources } from './framework.ts'
import { memberNames, path, readingsWith, text, usualEnvironmentFiles } from './readings.ts'
import { viteArgument, viteConfigFiles } from './vite.ts'

const by = "SvelteKit's default"

/** SvelteKit with the static adapter, or one that makes a server. Checked against 2. */
export const sveltekit: Framework = {
  name: 'sveltekit',
  title: 'SvelteKit',
  markers: ['@sveltejs/kit'],
  configFiles: ['svelte.config.js', 'svelte.config.ts', 'svelte.config.mjs'],
  commands: ['vite build', 'svelte-kit build'],
  router: 'history',
  environmentFiles: usualEnvironmentFiles,
  configArgument: viteArgument,
  environmentObjects: ['import.meta.env'],
  environmentModules: [
    { module: '$env/static/public', exports: 'names' },
    { module: '$env/static/private', exports: 'names', serverOnly: true },
    { module: '$env/dynamic/public', exports: { object: 'env' } },
    { module: '$env/dynamic/private', exports: { object: 'env' }, serverOnly: true },
  ],
  read: async (project) => {
    const config = project.config?.value ?? null
    const adapter = member(config, 'kit', 'adapter')
    const options = adapter?.kind === 'call' ? (adapter.args[0] ?? null) : null
    const isStatic = adapterName(adapter) === '@sveltejs/adapter-static'
    const vite = await firstFolded(project)
    return readingsWith(by, {
      publishDirectory: isStatic
        ? path(text(options, 'pages') ?? byDefault('build', by))
        : path(text(options, 'out') ?? byDefault('build', by)),
      basePath: baseOf(text(config, 'kit', 'paths', 'base')),
      prefixes: byDefault(['PUBLIC_', 'VITE_'], by),
      environmentFiles: usualEnvironmentFiles('production'),
      devProxy: memberNames(member(vite, 'server', 'proxy')) ?? byDefault([], by),
      output: outputOf(adapter, isStatic),
    })
  },
  placeholders: /^%sveltekit\.[\w.]+%$/,
  pages: [{ directories: ['src/routes'], extensions: ['svelte'], pageOf: namedPages('+page') }],
  signs: { files: [/^_app\/immutable\//] },
  fixes: {
    setBase: (base) => `paths: { base: '${base.replace(/\/$/, '')}' },`,
    environmentFile: '.env.production',
    makeStatic:
      'Use @sveltejs/adapter-static in svelte.config.js, with export const prerender = true in the root layout or a fallback page.',
  },
}

function baseOf(base: ReturnType<typeof text>): Reading<string | null> {
  if (!base) return byDefault('/', by)
  return base.value === '' ? { ...base, value: '/' } : base
}

/** The package an adapter comes from, as the configuration imports it. */
function adapterName(adapter: Folded | null): string | null {
  return adapter?.kind === 'call' ? adapter.callee : null
}

function outputOf(adapter: Folded | null, isStatic: boolean): Reading<OutputKind | null> {
  if (!adapter) return byDefault('server', by)
  if (adapter.kind === 'computed') return computed(adapter.expression, adapter.at)
  return isStatic ? stated('static', adapter.at) : inferred('server', adapter.at)
}

async function firstFolded({ names, fold }: ProjectSources): Promise<Folded | null> {
  const file = viteConfigFiles.find((name) => names.has(name))
  return file === undefined ? null : fold(file)
}
