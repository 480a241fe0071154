import { byDefault, computed, inferred, type Reading, stated } from '../model/reading.ts'
import { type Folded, member } from '../syntax/value.ts'
import { defineFramework, type FrameworkReadings, type OutputKind } from './framework.ts'
import { namedPages } from './page-files.ts'
import { mapped, path, proxyPaths, text, usualEnvironmentFiles } from './readings.ts'
import { foldViteConfig, plugin, viteArgument } from './vite.ts'

const by = "SvelteKit's default"

/** SvelteKit with the static adapter, or one that makes a server. Checked against 2. */
export const sveltekit = defineFramework({
  name: 'sveltekit',
  title: 'SvelteKit',
  over: ['vite'],
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
  settings: {
    publishDirectory: { default: 'build' },
    basePath: { default: '/' },
    prefixes: ['PUBLIC_', 'VITE_'],
  },
  refine: async (project) => {
    const vite = await foldViteConfig(project)
    const inPlugin = plugin(vite, /^@sveltejs\/kit\/vite/)?.args[0] ?? null
    const setting = (...path: string[]): Folded | null =>
      member(project.config?.value ?? null, 'kit', ...path) ?? member(inPlugin, ...path)
    const adapter = setting('adapter')
    const devProxy = proxyPaths(member(vite, 'server', 'proxy'))
    const router = text(setting('router', 'type'))
    return {
      ...publishDirectory(adapter),
      basePath: baseOf(text(setting('paths', 'base'))),
      output: outputOf(adapter),
      ...(devProxy && { devProxy }),
      ...(router && { router: mapped(router, (type) => (type === 'hash' ? 'hash' : 'history')) }),
    }
  },
  placeholders: /^%sveltekit\.[\w.]+%$/,
  pages: [{ directories: ['src/routes'], extensions: ['svelte'], pageOf: namedPages('+page') }],
  signs: { files: [/^_app\/immutable\//] },
  fixes: {
    setBase: (base) => `kit: { paths: { base: '${base.replace(/\/$/, '')}' } },`,
    environmentFile: '.env.production',
    makeStatic:
      'Use @sveltejs/adapter-static in svelte.config.js, with export const prerender = true in the root layout or a fallback page.',
  },
})

function baseOf(base: ReturnType<typeof text>): Reading<string | null> {
  if (!base) return byDefault('/', by)
  return base.value === '' ? { ...base, value: '/' } : base
}

/** The package an adapter comes from, as the configuration imports it. */
function packageOf(adapter: Folded | null): string | null {
  return adapter?.kind === 'call' ? adapter.callee : null
}

const staticAdapter = '@sveltejs/adapter-static'
/** It builds for the host that it finds itself on, and on any other machine nothing beyond the framework's own output. */
const autoAdapter = '@sveltejs/adapter-auto'

function publishDirectory(adapter: Folded | null): Partial<FrameworkReadings> {
  const options = adapter?.kind === 'call' ? (adapter.args[0] ?? null) : null
  const directory = text(options, packageOf(adapter) === staticAdapter ? 'pages' : 'out')
  if (directory) return { publishDirectory: path(directory) }
  const nowhere = adapter === null || packageOf(adapter) === autoAdapter
  return nowhere ? { publishDirectory: byDefault('.svelte-kit/output/client', by) } : {}
}

function outputOf(adapter: Folded | null): Reading<OutputKind | null> {
  if (!adapter) return byDefault('server', by)
  if (adapter.kind === 'computed') return computed(adapter.expression, adapter.at)
  return packageOf(adapter) === staticAdapter ? stated('static', adapter.at) : inferred('server', adapter.at)
}
