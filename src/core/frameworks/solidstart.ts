import { byDefault, type Reading } from '../model/reading.ts'
import { everyFile, pageScripts } from '../project/routes/file-routes.ts'
import type { Folded } from '../syntax/value.ts'
import { member } from '../syntax/value.ts'
import type { Framework, OutputKind } from './framework.ts'
import { flag, memberNames, readingsWith, text, usualEnvironmentFiles } from './readings.ts'
import { viteArgument } from './vite.ts'

const by = "SolidStart's default"

/** SolidStart. Checked against 1. Its server presets write the public files beside the program. */
export const solidstart: Framework = {
  name: 'solidstart',
  title: 'SolidStart',
  markers: ['@solidjs/start'],
  configFiles: ['app.config.ts', 'app.config.js', 'app.config.mjs'],
  isOwn: () => false,
  commands: ['vinxi build'],
  router: 'history',
  environmentFiles: usualEnvironmentFiles,
  configArgument: viteArgument,
  environmentObjects: ['import.meta.env', 'process.env'],
  read: ({ config }) => {
    const value = config?.value ?? null
    return readingsWith(by, {
      publishDirectory: byDefault('.output/public', by),
      basePath: text(value, 'server', 'baseURL') ?? byDefault('/', by),
      prefixes: byDefault(['VITE_'], by),
      environmentFiles: usualEnvironmentFiles('production'),
      devProxy: memberNames(member(value, 'vite', 'server', 'proxy')) ?? byDefault([], by),
      output: outputOf(value),
    })
  },
  pages: [{ directories: ['src/routes'], extensions: pageScripts, pageOf: everyFile() }],
  signs: { files: [/^_build\/assets\//] },
  fixes: {
    setBase: (base) => `server: { baseURL: '${base}' },`,
    environmentFile: '.env.production',
    makeStatic: "Write server: { preset: 'static', prerender: { crawlLinks: true } } in app.config.ts.",
  },
}

function outputOf(config: Folded | null): Reading<OutputKind | null> {
  const preset = text(config, 'server', 'preset')
  if (preset)
    return {
      ...preset,
      value: preset.value === null ? null : /static/.test(preset.value) ? 'static' : 'server',
    }
  const static_ = flag(config, 'server', 'static')
  return static_?.value ? { ...static_, value: 'static' } : byDefault('server', by)
}
