import type { FileFacts } from '../model/facts.ts'
import type { Place, Reading } from '../model/reading.ts'
import type { PageFiles } from './page-files.ts'
import type { ProjectSources } from './project-sources.ts'
import { readSettings, type SettingsTable } from './settings.ts'

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
  /** How the configuration has its router keep its place in the address, where that is a setting. */
  readonly router?: Reading<RouterKind | null>
  /** The path that its router puts before its routes, where that is a setting beside the base path. */
  readonly routerBase?: { readonly base: Reading<string | null>; readonly write: (base: string) => string }
  /** The object that the base path is a member of, where that is in another file than the framework's own configuration. */
  readonly baseAt?: Place | null
  /** The directory that the builder writes into, where the site is around it and its pages are written by hand. */
  readonly builtInto?: string
  /** Settings that by their names and values are the base path, where how it is set is not known. */
  readonly baseSettings?: readonly BaseSetting[]
  /** Variables it takes from an object of its own. */
  readonly configured?: readonly ConfiguredVariable[]
}

/** A setting that by its name holds the path which a site is served under. */
export interface BaseSetting {
  readonly name: string
  readonly value: string
  readonly at: Place
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
  /** It is given the variable of this name, of the machine that builds. */
  readonly passedOn?: true
}

/**
 * How a framework puts values of variables into other values. `current`: as Vite and its kin do. `next`: as Next does, with
 * dotenv-expand 10. `older`: as react-scripts and Vue CLI do, with dotenv-expand 5. `none`: not at all.
 */
export type Expansion = 'current' | 'next' | 'older' | 'none'

/** A module of a framework's that holds variables: each an export of its own (`names`), or all in one object of this name. */
export interface EnvironmentModule {
  readonly module: string
  readonly exports: 'names' | { readonly object: string }
  /** Only for code that never reaches a browser. */
  readonly serverOnly?: true
}

/** What a configuration function is called with: an object, or a text. */
export type ConfigArgument = Readonly<Record<string, string | boolean>> | string

/** A framework as its file states it: a table, with a function where a table can't say it. */
export interface FrameworkTable {
  readonly name: string
  readonly title: string
  /** The frameworks whose packages or configuration its projects hold too, and which are not meant then. */
  readonly over?: readonly string[]
  /** The packages of which one in the manifest marks it. The first also tells the version. */
  readonly markers: readonly string[]
  /** Packages without which a marker means another kind of project: an application for telephones alone. */
  readonly markedWith?: readonly string[]
  /** Configuration files, in the order the framework looks for them; `*.csproj` is any of this ending. */
  readonly configFiles?: readonly string[]
  /** Options of the command that name another configuration file; `--config` and `-c` where nothing is said. */
  readonly configOptions?: readonly string[]
  /** A build begins with `index.html` in the project: a package without it may be a library. */
  readonly beginsWithPage?: true
  /** It writes source maps in a production build unless it is told not to. */
  readonly shipsMaps?: true
  /** Its projects need no `package.json`: its configuration alone marks a directory as a project. */
  readonly needsNoManifest?: true
  /** A configuration file marks the framework by itself, unless its text, or the names beside it, must be looked at. */
  readonly isOwn?: (config: string, names: ReadonlySet<string>) => boolean
  /** The words of the commands that build, without options; the first is the usual one. */
  readonly commands: readonly string[]
  /** A command of its own that runs scripts of the manifest, by their names: `qwik build`. */
  readonly runsScripts?: { readonly words: string; readonly names: RegExp }
  /** Builds a program or library of any kind, so another framework in the same directory is the site. */
  readonly general?: true
  /** How its own router keeps its place in the address, where it has one. */
  readonly router?: RouterKind
  /** The build gives its own base path to the router, so the sources need not. */
  readonly routerFollowsBase?: true
  /** Which environment files a mode loads, in order; a later one wins. None when nothing is said. */
  readonly environmentFiles?: (mode: string) => readonly string[]
  /** How values of variables are put into others; as Vite does where nothing is said. */
  readonly environmentExpansion?: Expansion
  /** What NODE_ENV is when a mode builds and nothing sets it: `production` when nothing is said. */
  readonly nodeEnvironment?: (mode: string) => string
  /** What a configuration function is called with; nothing when nothing is said. */
  readonly configArgument?: (mode: string) => ConfigArgument
  /** Where the sources read variables: `import.meta.env`, `process.env`. */
  readonly environmentObjects?: readonly string[]
  /** It leaves the read of a variable that is not set in the code. */
  readonly leavesUnset?: true
  /** Modules of its own that hold variables. */
  readonly environmentModules?: readonly EnvironmentModule[]
  /** Where its settings are read. */
  readonly settings: SettingsTable
  /** What a table can't say: the readings that are different, given those of the table. */
  readonly refine?: (
    project: ProjectSources,
    readings: FrameworkReadings,
  ) => Partial<FrameworkReadings> | Promise<Partial<FrameworkReadings>>
  /** Where it leaves a list of the routes it made pages for, by the publish directory: JSON, their paths the keys of `routes`. */
  readonly routeList?: (publishDirectory: string) => string
  /** The files that it makes pages of. */
  readonly pages?: readonly PageFiles[]
  /** The markers of its own templates, which its build replaces. */
  readonly placeholders?: RegExp
  /** A read of a variable in the templates of its pages; the first group is the name. */
  readonly templateReads?: RegExp
  /** Modules that run while building, and whose values go into the pages. */
  readonly dataFiles?: RegExp
  /** Files that its loader requests without naming them in full, by what the build holds. */
  readonly needs?: (files: readonly FileFacts[]) => readonly NeededFile[]
  /** What only its output holds, to recognise a bare build folder. */
  readonly signs?: OutputSigns
  readonly fixes: FrameworkFixes
}

type Filled =
  | 'over'
  | 'configFiles'
  | 'configOptions'
  | 'environmentFiles'
  | 'configArgument'
  | 'environmentObjects'

/** A framework, with all that its table leaves out. */
export interface Framework
  extends Omit<FrameworkTable, Filled | 'settings' | 'refine'>,
    Required<Pick<FrameworkTable, Filled>> {
  /** Where it builds to when nobody says otherwise. */
  readonly usualDirectory: string
  read(project: ProjectSources): Promise<FrameworkReadings>
}

/** A framework, from its table. */
export function defineFramework({ settings, refine, ...table }: FrameworkTable): Framework {
  const environmentFiles = table.environmentFiles ?? (() => [])
  return {
    over: [],
    configFiles: [],
    configOptions: ['config', 'c'],
    configArgument: () => ({}),
    environmentObjects: [],
    ...table,
    usualDirectory: settings.publishDirectory.default,
    environmentFiles,
    read: async (project) => {
      const config = project.config?.value ?? null
      const readings = readSettings(settings, project, config, `${table.title}'s default`, environmentFiles)
      return { ...readings, ...(await refine?.(project, readings)) }
    },
  }
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

/** How the sources of a framework name a file of the public directory, so that the base path is put before it. */
export interface PublicUrl {
  /** The expression, for a path without its slash. */
  readonly write: (path: string) => string
  /** The import that the expression needs. */
  readonly from?: string
}

/** How things are changed in this framework. */
export interface FrameworkFixes {
  /** The text that sets the base path in the configuration; null where that is not known. */
  readonly setBase: ((base: string, origin: string) => string) | null
  /** Pages, styles and texts whose URLs it leaves as they are written; it puts the base path before those of all others. */
  readonly keeps?: RegExp
  /** Of those that it leaves as they are, it puts the base path before pictures in Markdown's own notation. */
  readonly rebasesPictures?: true
  /** It puts the base path before links too. */
  readonly rebasesLinks?: true
  /** Why no setting gives it a base path; one sentence for a person. */
  readonly noBase?: string
  /** Where it is set, when that is not the configuration: in the manifest, or as an option of the build command. */
  readonly baseIn?: 'manifest' | 'command'
  /** The configuration of a project that has none, with one setting. */
  readonly newConfig?: (setting: string) => { readonly file: string; readonly text: string }
  /** The expression by which a source puts the base path before a file of the public directory, and what it imports for it. */
  readonly publicUrl?: PublicUrl
  /** The text that sets the site's whole address in the configuration, where it has one. */
  readonly setSite?: (site: { readonly origin: string; readonly base: string }) => string
  /** What a source says so that the pictures of shared links get their whole address; a sentence. */
  readonly pictureOrigin?: (origin: string) => string
  /** Where a variable of production is written. */
  readonly environmentFile: string | null
  /** How static output is got, where a server is the default. */
  readonly makeStatic?: string
  /** The same for a program: members of the configuration, or the words of the build command that others stand for. */
  readonly staticBy?: {
    /** @param routes the routes that are known, each from the top of the site */
    readonly settings?: (routes: readonly string[]) => readonly string[]
    readonly command?: readonly [instead: string, words: string]
  }
  /** The option of the build command that makes a build one for production, where a plain one is not. */
  readonly production?: string
  /** How it writes no source maps, where it does so of itself; the words behind "To keep them out:". */
  readonly noMaps?: string
  /** The option without which a build takes up what an earlier one made of the sources, the values of variables in it. */
  readonly freshOption?: string
  /** The command that must come first, where no option keeps a build from taking up what an earlier one made. */
  readonly freshBy?: string
}
