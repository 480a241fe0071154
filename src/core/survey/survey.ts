import { type Folder, listIfThere } from '../model/folder.ts'
import type { Trace } from '../model/hunt.ts'
import { describeOrigin, type Place, type Reading } from '../model/reading.ts'
import { escapePattern, readText } from '../model/text.ts'
import { type BuildCommand, readBuildCommand } from './build-command.ts'
import { foldData } from './config/data-files.ts'
import { foldDefaultExport } from './config/evaluate.ts'
import { loadModules, SyntaxProblem } from './config/modules.ts'
import type { Folded } from './config/value.ts'
import type { Declaration } from './declarations.ts'
import { type EnvironmentFile, EnvironmentValues, readEnvironmentFiles } from './environment-files.ts'
import type {
  ConfigFile,
  Framework,
  FrameworkReadings,
  OutputKind,
  ProjectSources,
  RouterKind,
} from './frameworks/framework.ts'
import { type Manifest, readManifest } from './manifest.ts'
import { installCommand, lockfileRemark, type PackageManager, readPackageManager } from './package-manager.ts'
import type { ProjectEntry } from './projects.ts'
import { type Recognised, recognise } from './recognise.ts'
import type { SourceRoute } from './routes/route.ts'
import { listedRoutes } from './routes/route-list.ts'
import { readRoutes, routeFile, routeWords } from './routes/routes.ts'
import {
  type EnvironmentRead,
  type EnvironmentReads,
  readEnvironmentReads,
} from './sources/environment-reads.ts'
import { readRouter, routerWords } from './sources/router.ts'
import { readSources, Sources } from './sources/sources.ts'
import { readVersion } from './version.ts'

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
  readonly mode: Reading<string | null> | null
  readonly prefixes: Reading<string[] | null> | null
  readonly devProxy: Reading<string[] | null> | null
  readonly output: Reading<OutputKind | null> | null
  readonly router: Reading<RouterKind> | null
  readonly environmentFiles: readonly EnvironmentFile[]
  readonly reads: readonly EnvironmentRead[]
  /** The routes that the sources give pages to. */
  readonly routes: readonly SourceRoute[]
  /** The framework's module, for remedies in its own terms. */
  readonly rules: Framework | null
  /** The configuration file, and where a member of its object would be written. */
  readonly config: { readonly file: string; readonly insertAt: Place | null } | null
}

/** A survey, with what is kept beside it while a build is judged. */
export interface SurveyWithSources {
  readonly survey: Survey
  readonly sources: Sources
  readonly traces: readonly Trace[]
  readonly values: EnvironmentValues
}

/** What is known from around a project: the repository it is a workspace of. */
export interface Surroundings {
  readonly manifest: Manifest | null
  readonly names: ReadonlySet<string>
}

const nothingKnown: Omit<Survey, 'directory'> = {
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
  mode: null,
  prefixes: null,
  devProxy: null,
  output: null,
  router: null,
  environmentFiles: [],
  reads: [],
  routes: [],
  rules: null,
  config: null,
}

/** The survey of a folder that is no project: nothing is known of what built it. */
export function emptySurvey(directory: string): SurveyWithSources {
  const survey = { directory, ...nothingKnown }
  return { survey, sources: new Sources(), traces: [], values: new EnvironmentValues() }
}

/** A project described from its manifest and configuration, before its sources are read. */
export interface Described {
  readonly survey: Survey
  readonly values: EnvironmentValues
}

/**
 * Reads what a project says of itself. Its code is read, never run. Null when nothing marks the directory as a project.
 * @throws {FolderError} when the manifest is not JSON, or a file can't be read.
 */
export async function surveyProject(
  folder: Folder,
  around?: Surroundings,
): Promise<SurveyWithSources | null> {
  const described = await describeProject(folder, around)
  return described && withSources(folder, described, true)
}

/** The same without the sources: enough to tell projects apart. */
export async function describeProject(folder: Folder, around?: Surroundings): Promise<Described | null> {
  const manifest = await readManifest(folder)
  const entries = (await listIfThere(folder, '')) ?? []
  const names: ReadonlySet<string> = new Set(entries.map(({ name }) => name))
  const recognised = await recognise(folder, manifest, names)
  if (!manifest && !recognised) return null
  const head: Survey = {
    directory: folder.label,
    ...nothingKnown,
    project: manifest?.text('name') ?? null,
    ...(manifest ? managerReadings(manifest, names, around) : {}),
    nodeVersion: await nodeVersion(folder, manifest, names),
  }
  if (!recognised) return { survey: head, values: new EnvironmentValues() }
  return describeFramework(folder, manifest, names, recognised, head)
}

/**
 * Adds what the sources say: the variables they read, and the marks these leave in built code. Without a build to judge
 * (`alone`) only the texts that say something are kept.
 */
export async function withSources(
  folder: Folder,
  { survey, values }: Described,
  alone: boolean,
): Promise<SurveyWithSources> {
  if (!survey.rules) return { ...emptySurvey(folder.label), survey }
  const { rules } = survey
  const output = survey.publishDirectory?.value ?? null
  const { sources, reads, traces } = alone
    ? await readTelling(folder, output, rules)
    : readWith(await readSources(folder, output), rules)
  const router = readRouter(sources, rules)
  const listed = await listedRoutes(folder, rules, output)
  const known = readRoutes(sources, rules, router?.value ?? null)
  const routes = [
    ...known,
    ...listed.filter(({ pattern }) => !known.some((each) => each.pattern === pattern)),
  ]
  return { survey: { ...survey, reads, router, routes }, sources, traces, values }
}

type SourcesRead = EnvironmentReads & { readonly sources: Sources }

function readWith(sources: Sources, { environmentObjects }: Framework): SourcesRead {
  return { sources, ...readEnvironmentReads(sources, environmentObjects) }
}

/** The sources that a survey learns something from. */
async function readTelling(folder: Folder, output: string | null, rules: Framework): Promise<SourcesRead> {
  const words = [...rules.environmentObjects.map(escapePattern), routerWords.source, routeWords.source]
  const any = new RegExp(words.join('|'))
  const tells = (path: string, text: string): boolean => any.test(text) || routeFile.test(path)
  const first = readWith(await readSources(folder, output, tells), rules)
  if (first.carried.length === 0) return first
  // Which constants carry a variable is known only now, and other files may test them.
  const uses = (text: string): boolean => first.carried.some((name) => text.includes(name))
  return readWith(await readSources(folder, output, (path, text) => tells(path, text) || uses(text)), rules)
}

function managerReadings(
  manifest: Manifest,
  names: ReadonlySet<string>,
  around: Surroundings | undefined,
): Pick<Survey, 'packageManager' | 'installCommand' | 'remarks'> {
  const all = new Set([...names, ...(around?.names ?? [])])
  const manager = readPackageManager([manifest, around?.manifest ?? null], all)
  const disagreement = lockfileRemark(manager, all)
  return {
    packageManager: manager,
    installCommand: { ...manager, value: installCommand(manager.value, all) },
    remarks: disagreement === null ? [] : [disagreement],
  }
}

async function nodeVersion(
  folder: Folder,
  manifest: Manifest | null,
  names: ReadonlySet<string>,
): Promise<Reading<string> | null> {
  for (const file of ['.nvmrc', '.node-version']) {
    const text = names.has(file) ? (await readText(folder, file))?.trim() : null
    if (text) return { value: text, from: { file, line: 1, column: 1 }, certainty: 'stated' }
  }
  return manifest?.text('engines', 'node') ?? null
}

async function describeFramework(
  folder: Folder,
  manifest: Manifest | null,
  names: ReadonlySet<string>,
  { framework: rules, reading, configFile }: Recognised,
  head: Survey,
): Promise<Described> {
  const build = readBuildCommand(manifest, head.packageManager?.value ?? 'npm', rules)
  const mode = build.options.get('mode') ?? build.options.get('m') ?? 'production'
  const early = await readEnvironmentFiles(folder, rules.environmentFiles(mode))
  const environment = new Map([...early.values.forSearching(), ...build.environment])
  const fold = (file: string): Promise<Folded | null> => foldFile(folder, file, rules, mode, environment)
  const config: ConfigFile | null =
    configFile === null ? null : { file: configFile, value: await fold(configFile) }
  const project: ProjectSources = {
    folder,
    manifest,
    names,
    build,
    config,
    environment,
    fold,
    text: (file) => readText(folder, file),
  }
  const readings = await rules.read(project)
  const loaded = await readEnvironmentFiles(folder, readings.environmentFiles)
  const survey: Survey = {
    ...head,
    framework: reading,
    frameworkVersion: await readVersion(folder, manifest, rules.markers),
    build,
    ...shown(readings),
    environmentFiles: loaded.files,
    remarks: [...head.remarks, ...aroundRemarks(build)],
    rules,
    config: config && {
      file: config.file,
      insertAt: config.value?.kind === 'object' ? config.value.at : null,
    },
  }
  const production = new Set(readings.environmentFiles)
  const onlyDevelopment = rules.environmentFiles('development').filter((file) => !production.has(file))
  const development = await readEnvironmentFiles(folder, onlyDevelopment)
  const values = new EnvironmentValues(loaded.values.forSearching(), development.values.forSearching())
  return { survey, values }
}

/** Steps the package manager runs before and after the build by themselves. */
function aroundRemarks({ command, around }: BuildCommand): string[] {
  return around.map(([when, script]) => `${command.value} also runs, ${when}: ${script}`)
}

type Shown = 'publishDirectory' | 'basePath' | 'mode' | 'prefixes' | 'devProxy' | 'output'

function shown(readings: FrameworkReadings): Pick<FrameworkReadings, Shown> {
  const { publishDirectory, basePath, mode, prefixes, devProxy, output } = readings
  return { publishDirectory, basePath, mode, prefixes, devProxy, output }
}

/** Folds a configuration file of whatever kind. One that can't be parsed is computed as a whole. */
async function foldFile(
  folder: Folder,
  file: string,
  rules: Framework,
  mode: string,
  environment: ReadonlyMap<string, string>,
): Promise<Folded | null> {
  const text = await readText(folder, file)
  if (text === null) return null
  try {
    const data = await foldData(file, text)
    if (data) return data
    return foldDefaultExport(await loadModules(folder, file), file, {
      argument: rules.configArgument(mode),
      environment,
    })
  } catch (error) {
    if (!(error instanceof SyntaxProblem)) throw error
    return { kind: 'computed', expression: error.message, at: { file, line: 1, column: 1 } }
  }
}

/** "/b/ (vite.config.ts:5)": a reading in words. */
export function describeReading(reading: Reading<string | null>): string {
  if (reading.value === null)
    return `computed by ${reading.expression ?? 'code'} at ${describeOrigin(reading.from)}`
  return `${reading.value} (${describeOrigin(reading.from)})`
}
