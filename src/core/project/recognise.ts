import type { Framework } from '../frameworks/framework.ts'
import { frameworks } from '../frameworks/index.ts'
import type { Manifest } from '../frameworks/project-sources.ts'
import type { Folder } from '../model/folder.ts'
import { inferred, type Reading } from '../model/reading.ts'
import { readText } from '../model/text.ts'
import { calledIn, rankOfBuild } from './build-command.ts'

/** A framework found in a directory, with what gave it away. */
export interface Recognised {
  readonly framework: Framework
  readonly reading: Reading<string>
  /** Its configuration file, when there is one. */
  readonly configFile: string | null
}

/**
 * Which framework builds what is in a directory. Several may be there (a test runner brings a bundler, a site a
 * component catalogue): the one that the likeliest build script calls is the one, else the more particular.
 */
export async function recognise(
  folder: Folder,
  manifest: Manifest | null,
  names: ReadonlySet<string>,
  own: readonly Framework[] = [],
): Promise<Recognised | null> {
  const found: Recognised[] = []
  for (const framework of [...own, ...frameworks]) {
    const one = await find(folder, manifest, names, framework)
    if (one) found.push(one)
  }
  const ranked = found
    .map((one, order) => ({
      one,
      order,
      rank: rankOfBuild(manifest, one.framework) ?? (one.framework.general ? seldomMeant : notCalled),
    }))
    // A file of a name that a framework knows proves less than the manifest: another tool may have one of that name.
    .sort(
      (a, b) => a.rank - b.rank || Number(isInferred(a.one)) - Number(isInferred(b.one)) || a.order - b.order,
    )
  return ranked[0]?.one ?? null
}

/** Ranks of frameworks that no script calls, behind those that one does; general ones are the site only for want of others. */
const notCalled = 1_000
const seldomMeant = 2_000

function isInferred({ reading }: Recognised): boolean {
  return reading.certainty === 'inferred'
}

async function find(
  folder: Folder,
  manifest: Manifest | null,
  names: ReadonlySet<string>,
  framework: Framework,
): Promise<Recognised | null> {
  const configFile = await configOf(folder, names, framework)
  const dependency = framework.markers
    .map((marker) => manifest?.dependency(marker))
    .find((reading) => reading != null)
  const isComplete = (framework.markedWith ?? []).every((name) => manifest?.dependency(name) != null)
  if (dependency && isComplete)
    return { framework, reading: { ...dependency, value: framework.name }, configFile }
  // Some come with the machine, or from further up in the repository.
  const called = calledIn(manifest, ofItsOwn(framework))
  if (called) return { framework, reading: inferred(framework.name, called), configFile }
  if (configFile === null) return null
  // Documentation below a directory does not make the directory its project.
  if (manifest === null && /^[^.].*\//.test(configFile)) return null
  if (framework.isOwn && !framework.isOwn((await readText(folder, configFile)) ?? '', names)) return null
  return {
    framework,
    reading: inferred(framework.name, { file: configFile, line: 1, column: 1 }),
    configFile,
  }
}

/** With the commands alone that are its own: those of the framework below it may build a project of that one. */
function ofItsOwn(framework: Framework): Framework {
  const known = alone.get(framework)
  if (known) return known
  const { over, commands } = framework
  const below = frameworks.filter(({ name }) => over.includes(name)).flatMap((each) => each.commands)
  const own = { ...framework, commands: commands.filter((words) => !below.includes(words)) }
  alone.set(framework, own)
  return own
}

/** A repository of hundreds of projects asks for each of them in turn. */
const alone = new WeakMap<Framework, Framework>()

/** Whether a directory is a project by any sign: a manifest, or a framework's own configuration. */
export async function isProject(folder: Folder, own: readonly Framework[] = []): Promise<boolean> {
  if ((await folder.stat('package.json')) !== null) return true
  const names = new Set((await folder.list('')).map(({ name }) => name))
  return (await recognise(folder, null, names, own)) !== null
}

/**
 * The same for a directory that nobody named, which is not listed: whether it has a manifest, or the configuration of a
 * framework that needs none. What is configured for other frameworks belongs to the nearest manifest.
 */
export async function hasOwnMark(folder: Folder, own: readonly Framework[] = []): Promise<boolean> {
  if ((await folder.stat('package.json')) !== null) return true
  for (const { needsNoManifest, configFiles, isOwn } of [...own, ...frameworks]) {
    for (const file of needsNoManifest ? configFiles : []) {
      if ((await folder.stat(file)) === null) continue
      if (!isOwn || isOwn((await readText(folder, file).catch(() => null)) ?? '', new Set())) return true
    }
  }
  return false
}

async function configOf(
  folder: Folder,
  names: ReadonlySet<string>,
  { configFiles }: Framework,
): Promise<string | null> {
  for (const name of configFiles) {
    const ending = name.startsWith('*') ? name.slice(1) : null
    const file = ending === null ? name : [...names].find((each) => each.endsWith(ending))
    if (file === undefined) continue
    const first = file.slice(0, `${file}/`.indexOf('/'))
    if (!names.has(first)) continue
    if (first === file || (await folder.stat(file)) !== null) return file
  }
  return null
}
