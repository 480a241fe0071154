import type { ConfiguredVariable, Framework, FrameworkReadings } from '../frameworks/framework.ts'
import { frameworks } from '../frameworks/index.ts'
import type { BuildCommand, ConfigFile, Manifest, ProjectSources } from '../frameworks/project-sources.ts'
import { thrownByOwnCode } from '../model/errors.ts'
import { directoryOf, type Folder, joinUp, listIfThere, nameOf } from '../model/folder.ts'
import { describeOrigin, type Place, type Reading } from '../model/reading.ts'
import { readText } from '../model/text.ts'
import { SyntaxProblem } from '../syntax/parse.ts'
import type { Folded } from '../syntax/value.ts'
import { asBuilt, movedByPlugin } from './as-built.ts'
import { readBuildCommand } from './build-command.ts'
import { foldData } from './config/data-files.ts'
import { foldExport, foldMember, type HandedValue } from './config/evaluate.ts'
import { loadModules, type Module } from './config/modules.ts'
import { type EnvironmentFile, EnvironmentValues, readEnvironmentFiles } from './environment-files.ts'
import { readManifest } from './manifest.ts'
import { installCommand, lockfileRemark, readPackageManager } from './package-manager.ts'
import { type Recognised, recognise } from './recognise.ts'
import { type Described, nothingKnown, type RepositoryAround, type Survey } from './survey.ts'
import { namedConfigFile } from './telling-settings.ts'
import { unknownBuilder } from './unknown-builder.ts'
import { readVersion } from './version.ts'

/** A project by its manifest and the names in its directory alone: enough to tell projects apart. */
export interface Outline {
  readonly folder: Folder
  readonly manifest: Manifest | null
  readonly names: ReadonlySet<string>
  readonly recognised: Recognised | null
  readonly manager: Pick<Survey, 'packageManager' | 'installCommand' | 'remarks'> | null
}

/**
 * Null when nothing marks the directory as a project.
 * @param above the manifest further up that builds it, where it has none of its own
 */
export async function outlineProject(
  folder: Folder,
  around?: RepositoryAround,
  own: readonly Framework[] = [],
  above: Manifest | null = null,
): Promise<Outline | null> {
  const manifest = (await readManifest(folder)) ?? above
  const entries = (await listIfThere(folder, '')) ?? []
  const names: ReadonlySet<string> = new Set(entries.map(({ name }) => name))
  const recognised = await recognise(folder, manifest, names, own)
  if (!manifest && !recognised) return null
  return {
    folder,
    manifest,
    names,
    recognised,
    manager: manifest && managerReadings(manifest, names, around),
  }
}

/**
 * The readings of a project, without its sources.
 * @param withEnvironment whether its environment files are read: only of the project that is looked at
 * @param handed variables that pipeline and container files set plainly
 */
export async function describeOutline(
  outline: Outline,
  withEnvironment: boolean,
  handed: ReadonlyMap<string, HandedValue> = new Map(),
): Promise<Described> {
  const { folder, manifest, names, recognised, manager } = outline
  const head: Survey = {
    directory: folder.label,
    ...nothingKnown,
    project: manifest?.text('name') ?? null,
    ...manager,
    nodeVersion: await nodeVersion(folder, manifest, names),
  }
  if (recognised) return describeFramework(outline, recognised, { head, withEnvironment, handed })
  if (!manifest?.texts('scripts').has('build')) return { survey: head, values: new EnvironmentValues() }
  const unknown = {
    framework: unknownBuilder,
    reading: null,
    configFile: namedConfigFile(manifest, names),
  }
  const { survey, values } = await describeFramework(outline, unknown, { head, withEnvironment, handed })
  // What an unknown builder does by default is not known: the output tells.
  const devProxy = survey.devProxy?.certainty === 'default' ? null : survey.devProxy
  return { survey: { ...survey, basePath: null, output: null, mode: null, devProxy }, values }
}

function managerReadings(
  manifest: Manifest,
  names: ReadonlySet<string>,
  around: RepositoryAround | undefined,
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

type Nullable<T, K extends keyof T> = { readonly [key in K]: T[key] | null }

async function describeFramework(
  { folder, manifest, names }: Outline,
  {
    framework: definition,
    reading,
    configFile,
  }: Omit<Recognised, 'reading'> & Nullable<Recognised, 'reading'>,
  {
    head,
    withEnvironment,
    handed,
  }: { head: Survey; withEnvironment: boolean; handed: ReadonlyMap<string, HandedValue> },
): Promise<Described> {
  const environmentOf = (files: readonly string[]): ReturnType<typeof readEnvironmentFiles> =>
    readEnvironmentFiles(folder, withEnvironment ? files : [], definition.environmentExpansion)
  const build = readBuildCommand(manifest, head.packageManager?.value ?? 'npm', definition)
  const mode = build.options.get('mode') ?? build.options.get('m') ?? 'production'
  const early = await environmentOf(definition.environmentFiles(mode))
  const environment = new Map([...early.values.forSearching(), ...build.environment])
  const given = new Map([...handed, ...nodeEnvironment(definition, { build, mode, early: early.values })])
  const fold: ProjectSources['fold'] = (file, name, argument = definition.configArgument(mode)) =>
    foldFile(folder, file, { argument, environment, handed: given }, name)
  const file = (await namedConfig(folder, build, definition)) ?? configFile
  const config: ConfigFile | null = file === null ? null : { file, value: await fold(file) }
  const project: ProjectSources = {
    folder,
    manifest,
    names,
    build,
    config,
    environment,
    fold,
    foldMember: (file, name) =>
      foldOf(folder, file, (modules) =>
        foldMember(modules, file, { argument: '', environment, handed: given }, name),
      ),
    text: (file) => readText(folder, file),
  }
  const read = await readingsOf(definition, project)
  const moved = withEnvironment ? await movedByPlugin(read, folder) : null
  const readings = moved ?? (await asBuilt(read, folder, definition))
  const { configured = [] } = readings
  const loaded = await environmentOf(readings.environmentFiles)
  const survey: Survey = {
    ...head,
    framework: reading,
    frameworkVersion: await readVersion(folder, manifest, definition.markers, names),
    build,
    ...shown(readings),
    siteAddress: readings.siteAddress ?? null,
    router: routerOf(readings),
    routerBase: routerBaseOf(readings, config),
    environmentFiles: [...filesOf(configured), ...loaded.files],
    environmentTarget: targetAmong(readings.environmentFiles, definition.fixes.environmentFile),
    configured,
    remarks: [...head.remarks, ...aroundRemarks(build), ...inactiveRemarks(readings)],
    definition,
    config: config && {
      file: config.file,
      insertAt: config.value?.kind === 'object' ? config.value.at : null,
    },
    baseAt: baseAtOf(readings, config),
    baseSettings: readings.baseSettings ?? [],
    builtInto: readings.builtInto ?? null,
  }
  const production = new Set(readings.environmentFiles)
  // A project may keep its environment files elsewhere: those of development are beside those of production.
  const beside = directoryOf(readings.environmentFiles[0] ?? '')
  const onlyDevelopment = definition
    .environmentFiles('development')
    .map((file) => joinUp(beside, nameOf(file)))
    .filter((file) => !production.has(file))
  const development = await environmentOf(onlyDevelopment)
  // A script that builds for development loads its values, and those of production are what visitors should get.
  const isForDevelopment = build?.options.get('mode') === 'development'
  const meant = isForDevelopment
    ? await environmentOf(
        definition.environmentFiles('production').map((file) => joinUp(beside, nameOf(file))),
      )
    : null
  const taken = loaded.values.forSearching()
  return {
    survey,
    values: new EnvironmentValues(
      new Map([
        ...ownValues(configured, loaded.values, readings),
        ...taken,
        ...(meant?.values.forSearching() ?? []),
      ]),
      new Map([
        ...valuesOf(configured, ({ development: other }) => other),
        ...development.values.forSearching(),
        ...(meant ? taken : []),
      ]),
    ),
  }
}

/** NODE_ENV where the build's own command makes it another than production. */
function nodeEnvironment(
  { nodeEnvironment: ofMode }: Framework,
  { build, mode, early }: { build: BuildCommand; mode: string; early: EnvironmentValues },
): [string, HandedValue][] {
  const value =
    build.environment.get('NODE_ENV') ??
    // Others read their configuration before these files.
    (ofMode ? (early.forSearching().get('NODE_ENV') ?? ofMode(mode)) : 'production')
  return value === 'production' || !build.at ? [] : [['NODE_ENV', { value, at: build.at }]]
}

/** The configuration file that the build command names. */
async function namedConfig(
  folder: Folder,
  build: BuildCommand,
  { configOptions }: Framework,
): Promise<string | null> {
  for (const option of configOptions) {
    const file = joinUp(build.options.get(option) ?? '')
    if (file !== '' && (await folder.stat(file)) !== null) return file
  }
  return null
}

/** A framework that does not come with the package and throws is its author's to repair. */
async function readingsOf(definition: Framework, project: ProjectSources): Promise<FrameworkReadings> {
  try {
    return await definition.read(project)
  } catch (error) {
    if (frameworks.includes(definition)) throw error
    throw thrownByOwnCode(`The framework ${definition.name}`, error)
  }
}

/** A configured variable is defined where the project's own code gives it a value. */
function filesOf(configured: readonly ConfiguredVariable[]): EnvironmentFile[] {
  const files = new Map<string, Map<string, Place>>()
  for (const { name, place, value } of configured) {
    if (value === null || value === '') continue
    const names = files.get(place.file) ?? new Map<string, Place>()
    files.set(place.file, names.set(name, place))
  }
  return [...files].map(([file, names]) => ({ file, names }))
}

/** What the configuration gives of itself. A private variable that it passes on stays private. */
function ownValues(
  configured: readonly ConfiguredVariable[],
  loaded: EnvironmentValues,
  { prefixes }: FrameworkReadings,
): [string, string][] {
  const isPublic = (name: string): boolean =>
    prefixes.value?.some((prefix) => name.startsWith(prefix)) ?? false
  const kept = new Set(
    [...loaded.forSearching()].filter(([name]) => !isPublic(name)).map(([, value]) => value),
  )
  return valuesOf(configured, ({ value }) => value).filter(([, value]) => !kept.has(value))
}

function valuesOf(
  configured: readonly ConfiguredVariable[],
  of: (variable: ConfiguredVariable) => string | null,
): [string, string][] {
  return configured.flatMap((variable): [string, string][] => {
    const value = of(variable)
    return value === null || value === '' ? [] : [[variable.name, value]]
  })
}

/** The file of that name where the build reads it; of another mode, the file of that mode. */
function targetAmong(files: readonly string[], usual: string | null): string | null {
  if (usual === null) return null
  const name = nameOf(usual)
  return (
    files.find((file) => nameOf(file) === name) ?? files.findLast((file) => !file.endsWith('.local')) ?? usual
  )
}

/** The router as the configuration sets it; what it can't be known from is left to the sources. */
function routerOf({ router }: FrameworkReadings): Survey['router'] {
  return router && router.value !== null ? { ...router, value: router.value } : null
}

/** A base path that is written and has no effect. */
function inactiveRemarks({ basePath }: FrameworkReadings): string[] {
  const { value, from, inactive } = basePath
  return inactive
    ? [`The base path ${value} (${describeOrigin(from)}) is not in force: ${inactive.because}.`]
    : []
}

function routerBaseOf({ routerBase }: FrameworkReadings, config: ConfigFile | null): Survey['routerBase'] {
  if (!routerBase) return null
  const { base, write } = routerBase
  const insertAt = config?.value?.kind === 'object' ? config.value.at : null
  const place =
    'file' in base.from ? base.from : (insertAt ?? (config && { file: config.file, line: 1, column: 1 }))
  return place && { maker: place.file, form: null, place, base, write }
}

function baseAtOf({ baseAt }: FrameworkReadings, config: ConfigFile | null): Place | null {
  return baseAt === undefined && config?.value?.kind === 'object' ? config.value.at : (baseAt ?? null)
}

/** Steps the package manager runs before and after the build by themselves. */
function aroundRemarks({ command, around }: BuildCommand): string[] {
  return around.map(([when, script]) => `${command.value} also runs, ${when}: ${script}`)
}

type ShownReading = 'publishDirectory' | 'basePath' | 'mode' | 'prefixes' | 'devProxy' | 'output'

function shown(readings: FrameworkReadings): Pick<FrameworkReadings, ShownReading> {
  const { publishDirectory, basePath, mode, prefixes, devProxy, output } = readings
  return { publishDirectory, basePath, mode, prefixes, devProxy, output }
}

/** Folds a configuration file of whatever kind. One that can't be parsed is computed as a whole. */
async function foldFile(
  folder: Folder,
  file: string,
  around: Parameters<typeof foldExport>[2],
  name?: string,
): Promise<Folded | null> {
  return foldOf(folder, file, (modules) => {
    const found = foldExport(modules, file, around, name)
    // A few tools want it under this name, and then it has no default export.
    return found ?? (name === undefined ? foldExport(modules, file, around, 'config') : null)
  })
}

async function foldOf(
  folder: Folder,
  file: string,
  fold: (modules: ReadonlyMap<string, Module>) => Folded | null,
): Promise<Folded | null> {
  const text = await readText(folder, file)
  if (text === null) return null
  try {
    return (await foldData(file, text)) ?? fold(await loadModules(folder, file))
  } catch (error) {
    if (!(error instanceof SyntaxProblem)) throw error
    return { kind: 'computed', expression: error.message, at: error.at }
  }
}
