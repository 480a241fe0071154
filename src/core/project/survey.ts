import type {
  BaseSetting,
  ConfiguredVariable,
  Framework,
  OutputKind,
  RouterKind,
} from '../frameworks/framework.ts'
import type { BuildCommand, Manifest } from '../frameworks/project-sources.ts'
import { describeOrigin, type Place, type Reading } from '../model/reading.ts'
import type { Trace } from '../model/search.ts'
import type { SourceRoute } from '../model/source-route.ts'
import type { Declaration } from './declared/declarations.ts'
import { type EnvironmentFile, EnvironmentValues } from './environment-files.ts'
import type { PackageManager } from './package-manager.ts'
import type { ProjectEntry } from './projects.ts'
import type { EnvironmentRead } from './sources/environment-reads.ts'
import type { PassedWhole } from './sources/passed-whole.ts'
import type { RouterBase } from './sources/router-base.ts'
import { Sources } from './sources/sources.ts'
import type { WorkspacePackage } from './workspace-packages.ts'

/** What is known of a project, each value with where it was read. No variable's value is in it. */
export interface Survey {
  /** What a person calls the directory. */
  readonly directory: string
  /** Every project of the repository, and why this one was taken, when there are several. */
  readonly projects: readonly ProjectEntry[]
  readonly choice: string | null
  /** What a person should know of the readings: what could not be known, what disagrees. One sentence each. */
  readonly remarks: readonly string[]
  /** Publish directories and build commands that deploy and pipeline files name. */
  readonly declarations: readonly Declaration[]
  readonly project: Reading<string> | null
  readonly framework: Reading<string> | null
  readonly frameworkVersion: Reading<string> | null
  readonly packageManager: Reading<PackageManager> | null
  readonly installCommand: Reading<string> | null
  readonly nodeVersion: Reading<string> | null
  readonly build: BuildCommand | null
  readonly publishDirectory: Reading<string | null> | null
  readonly basePath: Reading<string | null> | null
  /** The whole address that the configuration gives the site. */
  readonly siteAddress: Reading<string | null> | null
  readonly mode: Reading<string | null> | null
  readonly prefixes: Reading<string[] | null> | null
  readonly devProxy: Reading<string[] | null> | null
  readonly output: Reading<OutputKind | null> | null
  readonly router: Reading<RouterKind> | null
  /** The path that the router in the browser puts before its routes; null when none is seen. */
  readonly routerBase: RouterBase | null
  readonly environmentFiles: readonly EnvironmentFile[]
  /** The environment file that a missing variable would be written into; null where the build reads none. */
  readonly environmentTarget: string | null
  /** Variables that pipeline, deploy and container files name. */
  readonly deployVariables: readonly EnvironmentFile[]
  readonly reads: readonly EnvironmentRead[]
  /** Variables that the framework takes from an object of its own. */
  readonly configured: readonly ConfiguredVariable[]
  /** Where variables are read by a name that only the running code knows. */
  readonly computedReads: readonly Place[]
  /** Where the configuration passes on all variables there are. */
  readonly passedWhole: PassedWhole | null
  /** The routes that the sources give pages to. */
  readonly routes: readonly SourceRoute[]
  /** The framework's module, for fixes in its own terms. */
  readonly definition: Framework | null
  /** The configuration file, and where a member of its object would be written. */
  readonly config: { readonly file: string; readonly insertAt: Place | null } | null
  /** The object that the base path is a member of; null where none is known. */
  readonly baseAt: Place | null
  /** The directory inside of the published one that the builder writes into; null where it writes all of it. */
  readonly builtInto: string | null
  /** Settings that may be the base path of a builder that is not known. */
  readonly baseSettings: readonly BaseSetting[]
}

/** A survey, with what is kept beside it while a build is judged. */
export interface SurveyWithSources {
  readonly survey: Survey
  readonly sources: Sources
  readonly traces: readonly Trace[]
  readonly values: EnvironmentValues
}

/** What is known from around a project: the repository it is a workspace of. */
export interface RepositoryAround {
  readonly manifest: Manifest | null
  readonly names: ReadonlySet<string>
  /** The project's directory in the repository, and the packages beside it, which are read when somebody needs them. */
  readonly workspace?: {
    readonly directory: string
    readonly packages: () => Promise<readonly WorkspacePackage[]>
    /** What was read of these packages, for all projects of the repository. */
    readonly texts?: Map<string, string | null>
  } | null
}

export const nothingKnown: Omit<Survey, 'directory'> = {
  projects: [],
  choice: null,
  remarks: [],
  declarations: [],
  project: null,
  framework: null,
  frameworkVersion: null,
  packageManager: null,
  installCommand: null,
  nodeVersion: null,
  build: null,
  publishDirectory: null,
  basePath: null,
  siteAddress: null,
  mode: null,
  prefixes: null,
  devProxy: null,
  output: null,
  router: null,
  routerBase: null,
  environmentFiles: [],
  environmentTarget: null,
  deployVariables: [],
  reads: [],
  configured: [],
  computedReads: [],
  passedWhole: null,
  routes: [],
  definition: null,
  config: null,
  baseAt: null,
  builtInto: null,
  baseSettings: [],
}

/** The survey of a folder that is no project: nothing is known of what built it. */
export function emptySurvey(directory: string): SurveyWithSources {
  const survey = { directory, ...nothingKnown }
  return { survey, sources: new Sources(), traces: [], values: new EnvironmentValues() }
}

/** The variables that the configuration passes on to the browser, whatever their names. */
export function passedOn({ reads }: Survey): ReadonlySet<string> {
  return new Set(reads.flatMap(({ name, passedOn: isPassed }) => (isPassed ? [name] : [])))
}

/** Readings that are shown even where a variable gave them: they are what a survey is for. */
export function openly({ basePath, publishDirectory, siteAddress, mode }: Survey): string[] {
  return [basePath, publishDirectory, siteAddress, mode].flatMap((reading) => reading?.value ?? [])
}

/** A project described from its manifest and configuration, before its sources are read. */
export interface Described {
  readonly survey: Survey
  readonly values: EnvironmentValues
}

/** "/b/ (vite.config.ts:5)": a reading in words. */
export function describeReading(reading: Reading<string | null>): string {
  if (reading.value === null)
    return `computed by ${reading.expression ?? 'code'} at ${describeOrigin(reading.from)}`
  return `${reading.value} (${describeOrigin(reading.from)})`
}
