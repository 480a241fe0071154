import { joinPath } from '../model/folder.ts'
import { byDefault } from '../model/reading.ts'
import { belowProject } from '../project/config/project-path.ts'
import { type Folded, member } from '../syntax/value.ts'
import type { Framework, FrameworkReadings, ProjectSources } from './framework.ts'
import { memberNames, option, path, readingsWith, text, texts, usualEnvironmentFiles } from './readings.ts'

const by = "Vite's default"

/** Configuration file names of Vite, for the frameworks built on it too. */
export const viteConfigFiles = ['js', 'mjs', 'ts', 'cjs', 'mts', 'cts'].map(
  (ending) => `vite.config.${ending}`,
)

/** Vite. Checked against Vite 8. */
export const vite: Framework = {
  name: 'vite',
  title: 'Vite',
  markers: ['vite'],
  configFiles: viteConfigFiles,
  commands: ['vite build'],
  environmentFiles: usualEnvironmentFiles,
  configArgument: viteArgument,
  environmentObjects: ['import.meta.env'],
  read: (project) => readVite(project, project.config?.value ?? null),
  placeholders: /^%(?:BASE_URL|MODE|DEV|PROD|VITE_\w+)%$/,
  signs: { files: [/^assets\/[^/]+-[\w-]{8}\.(?:js|css)$/] },
  fixes: { setBase: (base) => `base: '${base}',`, environmentFile: '.env.production' },
}

/** What Vite calls a configuration function with when it builds. */
export function viteArgument(mode: string): Record<string, string | boolean> {
  return { mode, command: 'build', isSsrBuild: false, isPreview: false }
}

/** The readings of a Vite configuration; frameworks built on Vite begin from them. */
export function readVite(project: ProjectSources, config: Folded | null): FrameworkReadings {
  const { build } = project
  const rootSaid = text(config, 'root')?.value
  const root = (rootSaid ? belowProject(rootSaid) : null) ?? build.words[0] ?? ''
  const outDir = option(build, 'outDir') ?? text(config, 'build', 'outDir') ?? byDefault('dist', by)
  const mode = option(build, 'mode', 'm') ?? text(config, 'mode') ?? byDefault('production', by)
  const envDir = text(config, 'envDir')?.value ?? ''
  return readingsWith(by, {
    publishDirectory: path(outDir, root),
    basePath: option(build, 'base') ?? text(config, 'base') ?? byDefault('/', by),
    mode,
    prefixes: texts(member(config, 'envPrefix')) ?? byDefault(['VITE_'], by),
    environmentFiles: usualEnvironmentFiles(mode.value ?? 'production').map((file) =>
      joinPath(root, belowProject(envDir) ?? '', file),
    ),
    devProxy: memberNames(member(config, 'server', 'proxy')) ?? byDefault([], by),
  })
}

/** What frameworks share that live in a Vite configuration, which by itself does not mark them. */
export const withinVite = {
  configFiles: viteConfigFiles,
  isOwn: () => false,
  environmentFiles: usualEnvironmentFiles,
  configArgument: viteArgument,
} as const
