import { byDefault, computed, inferred, type Reading, stated } from '../model/reading.ts'
import { type Folded, member } from '../syntax/value.ts'
import { defineFramework, type OutputKind } from './framework.ts'
import { namedPages } from './page-files.ts'
import { path, text, usualEnvironmentFiles } from './readings.ts'
import { readViteConfig, viteArgument } from './vite.ts'

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
    basePath: { config: ['kit.paths.base'], default: '/' },
    prefixes: ['PUBLIC_', 'VITE_'],
  },
  refine: async (project, { basePath }) => {
    const adapter = member(project.config?.value ?? null, 'kit', 'adapter')
    const options = adapter?.kind === 'call' ? (adapter.args[0] ?? null) : null
    const isStatic = adapter?.kind === 'call' && adapter.callee === '@sveltejs/adapter-static'
    const directory = text(options, isStatic ? 'pages' : 'out')
    const { devProxy } = await readViteConfig(project)
    return {
      ...(directory && { publishDirectory: path(directory) }),
      ...(basePath.value === '' && { basePath: { ...basePath, value: '/' } }),
      devProxy: devProxy.certainty === 'default' ? byDefault([], by) : devProxy,
      output: outputOf(adapter, isStatic),
    }
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
})

function outputOf(adapter: Folded | null, isStatic: boolean): Reading<OutputKind | null> {
  if (!adapter) return byDefault('server', by)
  if (adapter.kind === 'computed') return computed(adapter.expression, adapter.at)
  return isStatic ? stated('static', adapter.at) : inferred('server', adapter.at)
}
