import { type Folder, FolderError, listIfThere } from '../model/folder.ts'
import type { Trace } from '../model/hunt.ts'
import { describeOrigin, inferred, type Place, type Reading } from '../model/reading.ts'
import { type BuildCommand, readBuildCommand } from './build-command.ts'
import { foldDefaultExport } from './config/evaluate.ts'
import { loadModules, SyntaxProblem } from './config/modules.ts'
import { type EnvironmentFile, EnvironmentValues, readEnvironmentFiles } from './environment-files.ts'
import type { Framework, FrameworkReadings, ProjectSources } from './frameworks/framework.ts'
import { frameworks } from './frameworks/index.ts'
import { type Manifest, readManifest } from './manifest.ts'
import { installCommand, type PackageManager, readPackageManager } from './package-manager.ts'
import { type EnvironmentRead, readEnvironmentReads } from './sources/environment-reads.ts'
import { readSources, Sources } from './sources/sources.ts'

/** What is known of a project, each value with where it was read. No variable's value is in it. */
export interface Survey {
  /** What a person calls the directory. */
  readonly directory: string
  readonly project: Reading<string> | null
  readonly framework: Reading<string> | null
  readonly frameworkVersion: Reading<string> | null
  readonly packageManager: Reading<PackageManager> | null
  readonly installCommand: Reading<string> | null
  readonly build: BuildCommand | null
  readonly publishDirectory: Reading<string | null> | null
  readonly basePath: Reading<string | null> | null
  readonly mode: Reading<string | null> | null
  readonly prefixes: Reading<string[] | null> | null
  readonly devProxy: Reading<string[] | null> | null
  readonly environmentFiles: readonly EnvironmentFile[]
  readonly reads: readonly EnvironmentRead[]
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

const nothingKnown: Omit<Survey, 'directory'> = {
  project: null,
  framework: null,
  frameworkVersion: null,
  packageManager: null,
  installCommand: null,
  build: null,
  publishDirectory: null,
  basePath: null,
  mode: null,
  prefixes: null,
  devProxy: null,
  environmentFiles: [],
  reads: [],
  rules: null,
  config: null,
}

/** The survey of a folder that is no project: nothing is known of what built it. */
export function emptySurvey(directory: string): SurveyWithSources {
  const survey = { directory, ...nothingKnown }
  return { survey, sources: new Sources(), traces: [], values: new EnvironmentValues() }
}

/**
 * Reads what a project says of itself. Its code is read, never run.
 * @throws {FolderError} when the manifest is not JSON, or a file can't be read.
 */
export async function surveyProject(folder: Folder): Promise<SurveyWithSources | null> {
  const manifest = await readManifest(folder)
  if (!manifest) return null
  const entries = (await listIfThere(folder, '')) ?? []
  const names: ReadonlySet<string> = new Set(entries.map(({ name }) => name))
  const manager = readPackageManager(manifest, names)
  const rules = recognise(manifest, names)
  const head: Survey = {
    directory: folder.label,
    ...nothingKnown,
    project: manifest.text('name'),
    packageManager: manager,
    installCommand: { ...manager, value: installCommand(manager.value, names) },
  }
  if (!rules) return { ...emptySurvey(folder.label), survey: head }
  return surveyFramework(folder, manifest, names, rules, head, manager.value)
}

async function surveyFramework(
  folder: Folder,
  manifest: Manifest,
  names: ReadonlySet<string>,
  rules: Framework,
  head: Survey,
  manager: PackageManager,
): Promise<SurveyWithSources> {
  const build = readBuildCommand(manifest, manager, rules)
  const mode = build?.options.get('mode') ?? build?.options.get('m') ?? 'production'
  const early = await readEnvironmentFiles(folder, rules.environmentFiles(mode))
  const config = await readConfig(folder, names, rules, mode, early.values)
  const project: ProjectSources = { folder, manifest, names, build: build ?? noBuild(manifest), config }
  const readings = rules.read(project)
  const loaded = await readEnvironmentFiles(folder, readings.environmentFiles)
  const sources = await readSources(folder, readings.publishDirectory.value)
  const { reads, traces } = readEnvironmentReads(sources)
  const survey: Survey = {
    ...head,
    framework: frameworkReading(manifest, names, rules),
    frameworkVersion: await versionReading(folder, manifest, rules),
    build,
    ...pick(readings),
    environmentFiles: loaded.files,
    reads,
    rules,
    config: config && {
      file: config.file,
      insertAt: config.value?.kind === 'object' ? config.value.at : null,
    },
  }
  return { survey, sources, traces, values: loaded.values }
}

function pick(
  readings: FrameworkReadings,
): Pick<Survey, 'publishDirectory' | 'basePath' | 'mode' | 'prefixes' | 'devProxy'> {
  const { publishDirectory, basePath, mode, prefixes, devProxy } = readings
  return { publishDirectory, basePath, mode, prefixes, devProxy }
}

function noBuild(manifest: Manifest): BuildCommand {
  return { command: inferred('', manifest.place), script: null, at: null, options: new Map(), words: [] }
}

function recognise(manifest: Manifest, names: ReadonlySet<string>): Framework | null {
  return (
    frameworks.find(
      ({ marker, configFiles }) => manifest.dependency(marker) || configFiles.some((file) => names.has(file)),
    ) ?? null
  )
}

function frameworkReading(manifest: Manifest, names: ReadonlySet<string>, rules: Framework): Reading<string> {
  const dependency = manifest.dependency(rules.marker)
  if (dependency) return { ...dependency, value: rules.name }
  const file = rules.configFiles.find((name) => names.has(name)) ?? manifest.file
  return inferred(rules.name, { file, line: 1, column: 1 })
}

/** The version installed, else the range the manifest asks for. */
async function versionReading(
  folder: Folder,
  manifest: Manifest,
  rules: Framework,
): Promise<Reading<string> | null> {
  const installed = await readManifest(folder, `node_modules/${rules.marker}`).catch((error: unknown) => {
    if (error instanceof FolderError) return null
    throw error
  })
  return installed?.text('version') ?? manifest.dependency(rules.marker)
}

async function readConfig(
  folder: Folder,
  names: ReadonlySet<string>,
  rules: Framework,
  mode: string,
  values: EnvironmentValues,
): Promise<ProjectSources['config']> {
  const file = rules.configFiles.find((name) => names.has(name))
  if (file === undefined) return null
  try {
    const modules = await loadModules(folder, file)
    const around = { argument: rules.configArgument(mode), environment: values.forSearching() }
    return { file, value: foldDefaultExport(modules, file, around) }
  } catch (error) {
    if (!(error instanceof SyntaxProblem)) throw error
    return { file, value: { kind: 'computed', expression: error.message, at: { file, line: 1, column: 1 } } }
  }
}

/** "built for /, Vite's default": a reading in words. */
export function describeReading(reading: Reading<string | null>): string {
  if (reading.value === null)
    return `computed by ${reading.expression ?? 'code'} at ${describeOrigin(reading.from)}`
  return `${reading.value} (${describeOrigin(reading.from)})`
}
