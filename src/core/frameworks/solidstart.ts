import { byDefault, type Reading } from '../model/reading.ts'
import type { Folded } from '../syntax/value.ts'
import { defineFramework, type OutputKind } from './framework.ts'
import { builtOutput, isStaticPreset } from './nitro.ts'
import { everyFile, pageScripts } from './page-files.ts'
import { flag, mapped, text, usualEnvironmentFiles } from './readings.ts'
import { viteArgument } from './vite.ts'

/** SolidStart. Checked against 1. Its server presets write the public files beside the program. */
export const solidstart = defineFramework({
  name: 'solidstart',
  title: 'SolidStart',
  over: ['vite'],
  markers: ['@solidjs/start'],
  configFiles: ['app.config.ts', 'app.config.js', 'app.config.mjs'],
  isOwn: () => false,
  commands: ['vinxi build'],
  router: 'history',
  environmentFiles: usualEnvironmentFiles,
  configArgument: viteArgument,
  environmentObjects: ['import.meta.env', 'process.env'],
  settings: {
    publishDirectory: { default: '.output/public' },
    basePath: { config: ['server.baseURL'], default: '/' },
    prefixes: ['VITE_'],
    devProxy: ['vite.server.proxy'],
  },
  refine: async (project, { publishDirectory }) => ({
    output:
      outputOf(project.config?.value ?? null) ??
      (await builtOutput(project, publishDirectory.value)) ??
      byDefault('server', "SolidStart's default"),
  }),
  pages: [{ directories: ['src/routes'], extensions: pageScripts, pageOf: everyFile() }],
  signs: { files: [/^_build\/assets\//] },
  fixes: {
    setBase: (base) => `server: { baseURL: '${base}' },`,
    environmentFile: '.env.production',
    makeStatic: "Write server: { preset: 'static', prerender: { crawlLinks: true } } in app.config.ts.",
    staticBy: {
      settings: (routes) => [
        "server: { preset: 'static' }",
        `server: { prerender: { crawlLinks: true, routes: [${routes.map((route) => `'${route}'`).join(', ')}] } }`,
      ],
    },
  },
})

function outputOf(config: Folded | null): Reading<OutputKind | null> | null {
  const preset = text(config, 'server', 'preset')
  if (preset) return mapped(preset, (name) => (isStaticPreset(name) ? 'static' : 'server'))
  const isStatic = flag(config, 'server', 'static')
  return isStatic?.value ? { ...isStatic, value: 'static' } : null
}
