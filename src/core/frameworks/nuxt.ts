import { byDefault, inferred, type Reading } from '../model/reading.ts'
import { type Folded, member } from '../syntax/value.ts'
import { type ConfiguredVariable, defineFramework, type OutputKind } from './framework.ts'
import { builtOutput, isStaticPreset } from './nitro.ts'
import { everyFile } from './page-files.ts'
import type { ProjectSources } from './project-sources.ts'
import { leavesOf, mapped, text } from './readings.ts'

/** Nuxt: generated, without server rendering, and with a server. Checked against 4. */
export const nuxt = defineFramework({
  name: 'nuxt',
  title: 'Nuxt',
  over: ['vite'],
  markers: ['nuxt'],
  configFiles: ['nuxt.config.ts', 'nuxt.config.js', 'nuxt.config.mjs'],
  commands: ['nuxt generate', 'nuxt build --prerender', 'nuxi generate', 'nuxt build', 'nuxi build'],
  router: 'history',
  environmentFiles: () => ['.env'],
  environmentObjects: ['process.env', 'import.meta.env'],
  settings: {
    publishDirectory: { config: ['nitro.output.publicDir'], default: '.output/public' },
    basePath: { config: ['app.baseURL'], default: '/' },
    prefixes: ['NUXT_PUBLIC_', 'VITE_'],
    devProxy: ['nitro.devProxy', 'vite.server.proxy'],
  },
  refine: async (project, { publishDirectory }) => ({
    output:
      outputOf(project) ??
      (await builtOutput(project, publishDirectory.value)) ??
      byDefault('server', "Nuxt's default"),
    configured: runtimeVariables(project.config?.value ?? null),
  }),
  pages: [{ directories: ['app/pages', 'pages'], extensions: ['vue'], pageOf: everyFile() }],
  signs: { files: [/^_nuxt\//] },
  fixes: {
    setBase: (base) => `app: { baseURL: '${base}' },`,
    environmentFile: '.env',
    makeStatic: 'Build with nuxt generate, which prerenders every route it can reach into .output/public.',
    staticBy: { command: ['nuxt build', 'nuxt generate'] },
  },
})

/** Public members of the runtime configuration; a variable of the environment may set each when the site is built. */
function runtimeVariables(config: Folded | null): ConfiguredVariable[] {
  return leavesOf(member(config, 'runtimeConfig', 'public')).map(({ path: keys, value, at, siblings }) => ({
    name: `NUXT_PUBLIC_${keys.map(snake).join('_')}`,
    members: ['public', ...keys],
    place: at,
    siblings,
    value,
    development: null,
    missing: value === null || value === '' ? [''] : [],
  }))
}

function snake(key: string): string {
  return key.replace(/([a-z\d])([A-Z])/g, '$1_$2').toUpperCase()
}

/** The command decides; a static preset does as well. */
function outputOf({ build, config }: ProjectSources): Reading<OutputKind | null> | null {
  const generates = build.matched?.includes('generate') || build.options.has('prerender')
  if (generates) return inferred('static', build.at ?? { by: 'the build command' })
  const preset = text(config?.value ?? null, 'nitro', 'preset')
  if (preset?.value) return mapped(preset, (name) => (isStaticPreset(name) ? 'static' : 'server'))
  return null
}
