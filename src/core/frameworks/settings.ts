import { byDefault, type Reading } from '../model/reading.ts'
import { type Folded, member } from '../syntax/value.ts'
import type { FrameworkReadings, OutputKind } from './framework.ts'
import type { ProjectSources } from './project-sources.ts'
import { type Maybe, mapped, option, path, pathOfUrl, proxyPaths, text, texts, variable } from './readings.ts'

/** Where one setting is read; the first that is there wins, in this order. */
export interface Setting {
  /** Options of the build command, without their dashes. */
  readonly options?: readonly string[]
  /** A variable of the build command or the environment files. */
  readonly variable?: string
  /** Members of the configuration, their steps joined by points: `build.outDir`. */
  readonly config?: readonly string[]
  /** A text member of the manifest. */
  readonly manifest?: string
}

/** Where a framework's settings are read, and what they are when nothing says them. */
export interface SettingsTable {
  /** The directory below the project that relative paths are meant from, where it is not the project's own. */
  readonly root?: (project: ProjectSources, config: Folded | null) => string
  readonly publishDirectory: Setting & { readonly default: string }
  /** `url`: it is written as a whole address, of which the path counts. */
  readonly basePath: Setting & { readonly default: string; readonly url?: true }
  /** The whole address of the site. */
  readonly siteAddress?: Setting
  readonly mode?: Setting
  /** Prefixes of the variables that the build makes public, and where the configuration sets others. */
  readonly prefixes?: readonly string[]
  readonly prefixesIn?: string
  /** Members of the configuration whose names are paths that only the development server forwards. */
  readonly devProxy?: readonly string[]
  readonly output?: OutputKind
}

/** Reads what a table says. @param by whose defaults these are, in words */
export function readSettings(
  table: SettingsTable,
  project: ProjectSources,
  config: Folded | null,
  by: string,
  environmentFiles: (mode: string) => readonly string[],
): FrameworkReadings {
  const read = (setting: Setting): Maybe<string> => readSetting(setting, project, config)
  const orDefault = (setting: Setting & { readonly default: string }): Reading<string | null> =>
    read(setting) ?? byDefault(setting.default, by)
  const mode = (table.mode && read(table.mode)) ?? byDefault('production', by)
  const prefixes = table.prefixesIn === undefined ? null : texts(at(config, table.prefixesIn))
  const proxies = (table.devProxy ?? []).map((each) => proxyPaths(at(config, each)))
  return {
    publishDirectory: path(orDefault(table.publishDirectory), table.root?.(project, config)),
    basePath: table.basePath.url ? mapped(orDefault(table.basePath), pathOfUrl) : orDefault(table.basePath),
    siteAddress: (table.siteAddress && read(table.siteAddress)) ?? null,
    mode,
    prefixes: prefixes ?? byDefault([...(table.prefixes ?? [])], by),
    environmentFiles: environmentFiles(mode.value ?? 'production'),
    devProxy: proxies.find((each) => each !== null) ?? byDefault([], by),
    output: byDefault(table.output ?? 'static', by),
  }
}

/** One setting; null when nothing says it. */
export function readSetting(
  { options = [], variable: name, config: paths = [], manifest }: Setting,
  project: ProjectSources,
  config: Folded | null,
): Maybe<string> {
  const inConfig = (): Maybe<string> =>
    paths.map((each) => text(at(config, each))).find((each) => each !== null) ?? null
  return (
    option(project.build, ...options) ??
    (name === undefined ? null : variable(project, name)) ??
    inConfig() ??
    (manifest === undefined ? null : (project.manifest?.text(...manifest.split('.')) ?? null))
  )
}

function at(config: Folded | null, dotted: string): Folded | null {
  return member(config, ...dotted.split('.'))
}
