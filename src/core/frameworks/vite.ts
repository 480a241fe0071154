import { joinUp } from '../model/folder.ts'
import { belowProject } from '../model/project-path.ts'
import { type Folded, member } from '../syntax/value.ts'
import { defineFramework, type FrameworkReadings, type PublicUrl } from './framework.ts'
import type { ProjectSources } from './project-sources.ts'
import { text, usualEnvironmentFiles } from './readings.ts'
import { readSettings, type SettingsTable } from './settings.ts'

/** Configuration file names of Vite, for the frameworks built on it too. */
const viteConfigFiles = ['js', 'mjs', 'ts', 'cjs', 'mts', 'cts'].map((ending) => `vite.config.${ending}`)

const settings: SettingsTable = {
  root: rootOf,
  publishDirectory: { options: ['outDir'], config: ['build.outDir'], default: 'dist' },
  basePath: { options: ['base'], config: ['base'], default: '/' },
  mode: { options: ['mode', 'm'], config: ['mode'] },
  prefixes: ['VITE_'],
  prefixesIn: 'envPrefix',
  devProxy: ['server.proxy'],
}

/** Vite writes its base path in place of this, with a slash at the end. */
export const viteUrl: PublicUrl = { write: (path) => `\`\${import.meta.env.BASE_URL}${path}\`` }

/** Vite. Checked against Vite 8. */
export const vite = defineFramework({
  name: 'vite',
  title: 'Vite',
  beginsWithPage: true,
  markers: ['vite'],
  configFiles: viteConfigFiles,
  commands: ['vite build'],
  environmentFiles: usualEnvironmentFiles,
  configArgument: viteArgument,
  environmentObjects: ['import.meta.env'],
  settings,
  refine: (project, readings) => environmentFiles(project, project.config?.value ?? null, readings),
  placeholders: /^%(?:BASE_URL|MODE|DEV|PROD|VITE_\w+)%$/,
  signs: { files: [/^assets\/[^/]+-[\w-]{8}\.(?:js|css)$/] },
  fixes: {
    setBase: (base) => `base: '${base}',`,
    newConfig: (setting) => ({ file: 'vite.config.js', text: `export default {\n  ${setting}\n}\n` }),
    publicUrl: viteUrl,
    environmentFile: '.env.production',
  },
})

/** What Vite calls a configuration function with when it builds. */
export function viteArgument(mode: string): Record<string, string | boolean> {
  return { mode, command: 'build', isSsrBuild: false, isPreview: false }
}

/** The root that the configuration or the command names. */
function rootOf({ build }: ProjectSources, config: Folded | null): string {
  const said = text(config, 'root')?.value
  return (said ? belowProject(said) : null) ?? build.words[0] ?? ''
}

/** Environment files are looked for from the root, or in a directory of their own. */
function environmentFiles(
  project: ProjectSources,
  config: Folded | null,
  readings: FrameworkReadings,
): Pick<FrameworkReadings, 'environmentFiles'> {
  const directory = belowProject(text(config, 'envDir')?.value ?? '') ?? ''
  const root = rootOf(project, config)
  return { environmentFiles: readings.environmentFiles.map((file) => joinUp(root, directory, file)) }
}

/** A project's Vite configuration, where the framework's own is another file; null when there is none. */
export async function foldViteConfig({ names, fold }: ProjectSources): Promise<Folded | null> {
  const file = viteConfigFiles.find((name) => names.has(name))
  return file === undefined ? null : fold(file)
}

/** The readings of a project's Vite configuration, for frameworks that keep one beside their own. */
export async function readViteConfig(project: ProjectSources): Promise<FrameworkReadings> {
  const config = await foldViteConfig(project)
  const readings = readSettings(settings, project, config, "Vite's default", usualEnvironmentFiles)
  return {
    ...readings,
    ...environmentFiles(project, config, readings),
    baseAt: config?.kind === 'object' ? config.at : null,
  }
}

/** The call of a plugin in a Vite configuration, by the package it comes from. */
export function plugin(config: Folded | null, from: RegExp): Extract<Folded, { kind: 'call' }> | null {
  const plugins = member(config, 'plugins')
  const search = (value: Folded): Extract<Folded, { kind: 'call' }> | null => {
    if (value.kind === 'list') return value.items.map(search).find((found) => found !== null) ?? null
    return value.kind === 'call' && from.test(value.callee) ? value : null
  }
  return plugins ? search(plugins) : null
}

/** What frameworks share that live in a Vite configuration, which by itself does not mark them. */
export const withinVite = {
  over: ['vite'],
  configFiles: viteConfigFiles,
  isOwn: (): boolean => false,
  environmentFiles: usualEnvironmentFiles,
  configArgument: viteArgument,
  settings,
} as const

/** Their readings begin with those of Vite. */
export function withinRoot(project: ProjectSources, readings: FrameworkReadings): FrameworkReadings {
  return { ...readings, ...environmentFiles(project, project.config?.value ?? null, readings) }
}
