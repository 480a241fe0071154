import { byDefault, inferred, type Reading, stated } from '../model/reading.ts'
import type { Folded } from '../syntax/value.ts'
import { defineFramework, type OutputKind } from './framework.ts'
import { builtOutput } from './nitro.ts'
import { flatPage, pageScripts } from './page-files.ts'
import { flag, mapped } from './readings.ts'
import { plugin, viteUrl, withinRoot, withinVite } from './vite.ts'

/** TanStack Start, with and without nitro. Checked against 1. */
export const tanstackStart = defineFramework({
  ...withinVite,
  name: 'tanstack-start',
  title: 'TanStack Start',
  markers: ['@tanstack/react-start', '@tanstack/solid-start'],
  commands: ['vite build'],
  router: 'history',
  routerFollowsBase: true,
  environmentObjects: ['import.meta.env', 'process.env'],
  refine: async (project, table) => {
    const config = project.config?.value ?? null
    const readings = withinRoot(project, table)
    const start = plugin(config, /tanstack\/(?:react|solid)-start/)
    const nitro = plugin(config, /^nitro/)
    const publishDirectory = nitro
      ? inferred('.output/public', nitro.at)
      : mapped(readings.publishDirectory, (directory) => `${directory}/client`)
    return {
      ...readings,
      publishDirectory,
      output:
        outputOf(start?.args[0] ?? null) ??
        (await builtOutput(project, publishDirectory.value)) ??
        byDefault('server', "TanStack Start's default"),
    }
  },
  pages: [{ directories: ['src/routes', 'app/routes'], extensions: pageScripts, pageOf: flatPage }],
  signs: { page: [/\$_TSR|tsr-stream|class="\$tsr"/] },
  fixes: {
    setBase: null,
    noBase: 'Prerendering does not build with a base path: serve this build at the top of a host of its own.',
    publicUrl: viteUrl,
    environmentFile: '.env.production',
    makeStatic:
      'Give tanstackStart() prerender: { enabled: true } or spa: { enabled: true } in the Vite configuration.',
  },
})

function outputOf(options: Folded | null): Reading<OutputKind> | null {
  for (const name of ['spa', 'prerender']) {
    const enabled = flag(options, name, 'enabled')
    if (enabled?.value && 'file' in enabled.from) return stated('static', enabled.from)
  }
  return null
}
