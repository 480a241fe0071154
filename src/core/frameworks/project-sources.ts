import type { Folder } from '../model/folder.ts'
import type { Place, Reading } from '../model/reading.ts'
import type { Folded } from '../syntax/value.ts'
import type { ConfigArgument } from './framework.ts'

/** The manifest of a JavaScript project, `package.json`, with places. */
export interface Manifest {
  readonly file: string
  readonly place: Place
  /** A text member at the top level, as a reading. */
  text(...path: readonly string[]): Reading<string> | null
  /** The members of an object of texts, such as `scripts`. */
  texts(...path: readonly string[]): ReadonlyMap<string, Reading<string>>
  /** The members of an object of objects of texts, such as `targets`. */
  textsBelow(name: string): ReadonlyMap<string, ReadonlyMap<string, Reading<string>>>
  /** The texts of a list, such as `workspaces`. */
  list(...path: readonly string[]): readonly string[]
  /** The version range of a dependency, of whatever sort. */
  dependency(name: string): Reading<string> | null
}

/** The command that builds, the text behind it, and what the builder itself is given. */
export interface BuildCommand {
  /** What a person types in the project's directory. */
  readonly command: Reading<string>
  /** The script's text, or null when the framework's command is run as it is. */
  readonly script: string | null
  /** Where the builder is called, for options that beat the configuration. */
  readonly at: Place | null
  /** The words of the framework's command that were found, or null when no script calls it in so many words. */
  readonly matched: string | null
  /** Options of the builder: `--base /b/` is `base` → `/b/`; one without a value is `''`. */
  readonly options: ReadonlyMap<string, string>
  /** Arguments of the builder that are no options. */
  readonly words: readonly string[]
  /** Variables set before the builder in the same command. */
  readonly environment: ReadonlyMap<string, string>
  /** Where the builder is started, from the manifest's directory: `client` of `cd client && vite build`. */
  readonly directory: string
  /** Scripts that run before and after it by their names alone. */
  readonly around: readonly (readonly [when: 'before' | 'after', script: string])[]
}

/** What a framework is given to read a project with. */
export interface ProjectSources {
  readonly folder: Folder
  /** Null where the framework needs none, as Hugo. */
  readonly manifest: Manifest | null
  /** Names in the project's own directory. */
  readonly names: ReadonlySet<string>
  readonly build: BuildCommand
  /** The configuration file and what it exports, folded; null when there is none. */
  readonly config: ConfigFile | null
  /** Variables the build's own environment files and command set, for settings that are read from them. */
  readonly environment: ReadonlyMap<string, string>
  /**
   * Reads and folds another file of the project, or what it exports under a name; null when it is not there.
   * @param argument what it is called with where it exports a function; the framework's own where nothing is said
   */
  fold(file: string, name?: string, argument?: ConfigArgument): Promise<Folded | null>
  /** Folds the first member of that name in any object of a script; null when there is none. */
  foldMember(file: string, name: string): Promise<Folded | null>
  /** The text of another file of the project; null when it is not there. */
  text(file: string): Promise<string | null>
}

/** A configuration file, folded. */
export interface ConfigFile {
  readonly file: string
  readonly value: Folded | null
}
