import type { Folder } from '../../model/folder.ts'
import type { Reading } from '../../model/reading.ts'
import type { Remedy } from '../../model/report.ts'
import type { BuildCommand } from '../build-command.ts'
import type { Folded } from '../config/value.ts'
import type { Manifest } from '../manifest.ts'

/** What a framework's module is given to read a project with. */
export interface ProjectSources {
  readonly folder: Folder
  readonly manifest: Manifest
  /** Names in the project's own directory. */
  readonly names: ReadonlySet<string>
  readonly build: BuildCommand
  /** The configuration file and what it exports, folded; null when there is none. */
  readonly config: { readonly file: string; readonly value: Folded | null } | null
}

/** What a framework's module answers. */
export interface FrameworkReadings {
  readonly publishDirectory: Reading<string | null>
  readonly basePath: Reading<string | null>
  readonly mode: Reading<string | null>
  /** Prefixes of the variables that the build makes public. */
  readonly prefixes: Reading<string[] | null>
  /** Environment files the production build loads; a later file wins. */
  readonly environmentFiles: readonly string[]
  /** Paths only the development server forwards. */
  readonly devProxy: Reading<string[] | null>
}

/** A framework: data and small pure functions. Adding one is a file like this and a line in the list. */
export interface Framework {
  readonly name: string
  readonly title: string
  /** The package whose presence in the manifest marks it. */
  readonly marker: string
  /** Configuration files, in the order the framework looks for them. */
  readonly configFiles: readonly string[]
  /** The words of the command that builds. */
  readonly build: { readonly words: string }
  /** Which environment files a mode loads, in order; a later one wins. Needed before the configuration can be folded. */
  environmentFiles(mode: string): readonly string[]
  /** What a configuration function is called with. */
  configArgument(mode: string): Readonly<Record<string, string | boolean>>
  read(project: ProjectSources): FrameworkReadings
  readonly remedies: FrameworkRemedies
}

/** How things are changed in this framework. `config` is the configuration file, or the one to be made. */
export interface FrameworkRemedies {
  /** The configuration text that sets the base path. */
  setBase(base: string): string
  /** Where a variable of production is written. */
  readonly environmentFile: string
}

/** The change that a remedy asks for. */
export type Change = Remedy['change']
