import { byDefault, inferred, type Reading, stated } from '../model/reading.ts'
import { flatPage, pageScripts } from '../project/routes/file-routes.ts'
import { type Folded, member } from '../syntax/value.ts'
import type { Framework, OutputKind } from './framework.ts'
import { flag, mapped } from './readings.ts'
import { readVite, withinVite } from './vite.ts'

/** TanStack Start, with and without nitro. Checked against 1. */
export const tanstackStart: Framework = {
  ...withinVite,
  name: 'tanstack-start',
  title: 'TanStack Start',
  markers: ['@tanstack/react-start', '@tanstack/solid-start'],
  commands: ['vite build'],
  router: 'history',
  environmentObjects: ['import.meta.env', 'process.env'],
  read: (project) => {
    const config = project.config?.value ?? null
    const readings = readVite(project, config)
    const start = plugin(config, /tanstack\/(?:react|solid)-start/)
    const nitro = plugin(config, /^nitro/)
    return {
      ...readings,
      publishDirectory: nitro
        ? inferred('.output/public', nitro.at)
        : mapped(readings.publishDirectory, (directory) => `${directory}/client`),
      output: outputOf(start?.args[0] ?? null),
    }
  },
  pages: [{ directories: ['src/routes', 'app/routes'], extensions: pageScripts, pageOf: flatPage }],
  signs: { page: [/\$_TSR|tsr-stream|class="\$tsr"/] },
  fixes: {
    setBase: (base) => `base: '${base}',`,
    environmentFile: '.env.production',
    makeStatic:
      'Give tanstackStart() prerender: { enabled: true } or spa: { enabled: true } in the Vite configuration.',
  },
}

/** The call of a Vite plugin, by the package it comes from. */
export function plugin(config: Folded | null, from: RegExp): Extract<Folded, { kind: 'call' }> | null {
  const plugins = member(config, 'plugins')
  const search = (value: Folded): Extract<Folded, { kind: 'call' }> | null => {
    if (value.kind === 'list') return value.items.map(search).find((found) => found !== null) ?? null
    return value.kind === 'call' && from.test(value.callee) ? value : null
  }
  return plugins ? search(plugins) : null
}

function outputOf(options: Folded | null): Reading<OutputKind | null> {
  for (const name of ['spa', 'prerender']) {
    const enabled = flag(options, name, 'enabled')
    if (enabled?.value)
      return stated('static', 'file' in enabled.from ? enabled.from : { file: '', line: 1, column: 1 })
  }
  return byDefault('server', "TanStack Start's default")
}
