import type { FileFacts } from '../model/facts.ts'
import type { Folder } from '../model/folder.ts'
import type { Place, Reading } from '../model/reading.ts'
import type { BuildCommand } from '../project/build-command.ts'
import type { Expansion } from '../project/environment-expansion.ts'
import type { Manifest } from '../project/manifest.ts'
import type { PageFiles } from '../project/routes/file-routes.ts'
import type { EnvironmentModule } from '../project/sources/environment-access.ts'
import type { Folded } from '../syntax/value.ts'

/** What a framework's module is given to read a project with. */
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
  /** Reads and folds another file of the project, or what it exports under a name; null when it is not there. */
  fold(file: string, name?: string): Promise<Folded | null>
  /** The text of another file of the project; null when it is not there. */
  text(file: string): Promise<string | null>
}

/** A configuration file, folded. */
export interface ConfigFile {
  readonly file: string
  readonly value: Folded | null
}

/** How a router keeps its place in the address. */
export type RouterKind = 'history' | 'hash' | 'memory'

/** What the build makes: files any host can serve, or a program that must run. */
export type OutputKind = 'static' | 'server'

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
  readonly output: Reading<OutputKind | null>
  /** The whole address that the configuration gives the site. */
  readonly siteAddress?: Reading<string | null> | null
  /** Variables it takes from an object of its own. */
  readonly configured?: readonly ConfiguredVariable[]
}

/** A variable that sources read as a member of an object which the framework fills, not from the environment itself. */
export interface ConfiguredVariable {
  /** What a person sets: `NUXT_PUBLIC_API`, `environment.api`. */
  readonly name: string
  /** How sources read it, from the object's own name on: `['public', 'api']`. */
  readonly members: readonly string[]
  /** Where the object's member stands, and the other members beside it. */
  readonly place: Place
  readonly siblings: readonly string[]
  /** What production gets when nothing else sets it; null when that is no text, or is not known. */
  readonly value: string | null
  /** The same for development, where it is another. */
  readonly development: string | null
  /** The texts that stand in the build when it was never set. */
  readonly missing: readonly string[]
}

/** A framework: data and small functions. Adding one is a file like this, its corpus project and a line in the list. */
export interface Framework {
  readonly name: string
  readonly title: string
  /** The packages of which one in the manifest marks it. The first also tells the version. */
  readonly markers: readonly string[]
  /** Configuration files, in the order the framework looks for them. */
  readonly configFiles: readonly string[]
  /** It writes source maps in a production build unless it is reported not to. */
  readonly shipsMaps?: true
  /** Its projects need no `package.json`: its configuration alone marks a directory as a project. */
  readonly needsNoManifest?: true
  /** A configuration file marks the framework by itself, unless another must be requested: see `isOwn`. */
  readonly isOwn?: (config: string) => boolean
  /** The words of the commands that build, without options; the first is the usual one. */
  readonly commands: readonly string[]
  /** Builds a program or library of any kind, so another framework in the same directory is the site. */
  readonly general?: true
  /** How its own router keeps its place in the address, where it has one. */
  readonly router?: RouterKind
  /** Which environment files a mode loads, in order; a later one wins. */
  environmentFiles(mode: string): readonly string[]
  /** How values of variables are put into others; as Vite does where nothing is said. */
  readonly environmentExpansion?: Expansion
  /** What a configuration function is called with. */
  configArgument(mode: string): Readonly<Record<string, string | boolean>>
  /** Where the sources read variables: `import.meta.env`, `process.env`. */
  readonly environmentObjects: readonly string[]
  /** Modules of its own that hold variables. */
  readonly environmentModules?: readonly EnvironmentModule[]
  read(project: ProjectSources): FrameworkReadings | Promise<FrameworkReadings>
  /** Where it leaves a list of the routes it made pages for, by the publish directory: JSON, their paths the keys of `routes`. */
  readonly routeList?: (publishDirectory: string) => string
  /** The files that it makes pages of. */
  readonly pages?: readonly PageFiles[]
  /** The markers of its own templates, which its build replaces. */
  readonly placeholders?: RegExp
  /** Files that its loader requests without naming them in full, by what the build holds. */
  readonly needs?: (files: readonly FileFacts[]) => readonly NeededFile[]
  /** What only its output holds, to recognise a bare build folder. */
  readonly signs?: OutputSigns
  readonly fixes: FrameworkFixes
}

/** A framework of one's own, with the types that it must have. */
export function defineFramework(framework: Framework): Framework {
  return framework
}

/** A file that another one requests when it runs. */
export interface NeededFile {
  readonly from: string
  readonly path: string
}

/** Marks of a framework in a build folder. Any one is enough. */
export interface OutputSigns {
  /** A path in the folder. */
  readonly files?: readonly RegExp[]
  /** A text in its entry page. */
  readonly page?: readonly RegExp[]
}

/** How things are changed in this framework. */
export interface FrameworkFixes {
  /** The text that sets the base path in the configuration. */
  setBase(base: string): string
  /** Where a variable of production is written. */
  readonly environmentFile: string | null
  /** How static output is got, where a server is the default. */
  readonly makeStatic?: string
}
