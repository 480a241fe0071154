import { joinUp } from '../model/folder.ts'
import { belowProject } from '../model/project-path.ts'
import { computed, inferred, type Place, placeAt, type Reading, stated } from '../model/reading.ts'
import { type Folded, member } from '../syntax/value.ts'
import type { BuildCommand, ProjectSources } from './project-sources.ts'

/** A reading that may not be there. */
export type Maybe<T> = Reading<T | null> | null

/** A text member of the configuration; computed when it can't be known. */
export function text(value: Folded | null, ...path: readonly string[]): Maybe<string> {
  return textIn(member(value, ...path))
}

/** A yes or no of the configuration. */
export function flag(value: Folded | null, ...path: readonly string[]): Maybe<boolean> {
  return readingOf(member(value, ...path), (found): found is boolean => typeof found === 'boolean')
}

function readingOf<T>(value: Folded | null, is: (found: unknown) => found is T): Maybe<T> {
  if (value?.kind === 'computed' || value?.kind === 'call') return computed(value.expression, value.at)
  return value?.kind === 'value' && is(value.value) ? stated<T>(value.value, value.at, value.dependsOn) : null
}

/** An option of the build command, under any of its names. */
export function option(build: BuildCommand, ...names: readonly string[]): Reading<string> | null {
  for (const name of names) {
    const value = build.options.get(name)
    if (value !== undefined && build.at) return stated(value, build.at)
  }
  return null
}

/** The project's own script that the build command runs: `node scripts/build.mjs`. Null where it runs none. */
export function buildScript({ script }: Pick<BuildCommand, 'script'>): string | null {
  const runs = /\b(?:node|tsx|ts-node|bun(?: run)?)(?: +-\S+){0,9} +(?:\.\/)?([\w./-]+\.[cm]?[jt]s)\b/
  return runs.exec(script ?? '')?.[1] ?? null
}

/** A member of an object in a script; computed when it can't be known. */
export function textIn(value: Folded | null): Maybe<string> {
  return readingOf(value, (found): found is string => typeof found === 'string')
}

/** A variable that the framework takes as a setting: set in the build command, else in an environment file. */
export function variable({ build, environment }: ProjectSources, name: string): Reading<string> | null {
  const inCommand = build.environment.get(name)
  if (inCommand !== undefined && build.at) return stated(inCommand, build.at)
  const value = environment.get(name)
  return value === undefined ? null : inferred(value, { by: `${name} in an environment file` })
}

/** A path as it is meant from the project's directory, or null when it leads elsewhere. */
export function path(reading: Reading<string | null>, root = ''): Reading<string | null> {
  if (reading.value === null) return reading
  const below = belowProject(reading.value)
  return {
    ...reading,
    value: below === null ? null : joinUp(reading.value.startsWith('/') ? '' : root, below),
  }
}

/** The same reading with another value. */
export function mapped<A, B>(reading: Reading<A | null>, map: (value: A) => B): Reading<B | null> {
  return { ...reading, value: reading.value === null ? null : map(reading.value) }
}

/** The path of an absolute URL, or the path itself. */
export function pathOfUrl(value: string): string {
  return URL.canParse(value) ? new URL(value).pathname : value
}

/**
 * What a development proxy forwards: the names of an object's members, or the `context` of each item of a list, which is a
 * text or several.
 */
export function proxyPaths(value: Folded | null): Maybe<string[]> {
  if (value?.kind === 'computed') return computed(value.expression, value.at)
  if (value?.kind === 'object') return stated([...value.members.keys()], value.at)
  if (value?.kind !== 'list') return null
  const paths = value.items.flatMap((item) => texts(member(item, 'context'))?.value ?? [])
  return paths.length > 0 ? stated(paths, value.at) : null
}

/** The paths that a program of the project hands to the middleware that forwards. */
const forwarding =
  /(?:createProxyMiddleware|\bproxy)\(\s*(?:\[([^\]]*)\]|(['"`])([^'"`]*)\2)|\.use\(\s*(?:\[([^\]]*)\]|(['"`])([^'"`]*)\5)\s*,\s*(?:createProxyMiddleware|proxy)\b|\bpathFilter:\s*(?:\[([^\]]*)\]|(['"`])([^'"`]*)\8)/g

/** What a program forwards that sets up the development server; null when it forwards nothing that can be seen. */
export function middlewarePaths(file: string, source: string): Maybe<string[]> {
  const matches = [...source.matchAll(forwarding)]
  const paths = matches.flatMap(([, first, , one, second, , two, third, , three]) => [
    ...quotedIn(first ?? second ?? third ?? ''),
    ...[one, two, three].filter((each) => each !== undefined),
  ])
  const [match] = matches
  return match && paths.length > 0 ? stated([...new Set(paths)], placeAt(file, source, match.index)) : null
}

function quotedIn(list: string): string[] {
  return [...list.matchAll(/(['"`])([^'"`]*)\1/g)].map((found) => found[2] ?? '')
}

/** Text items of a list, or a single text. */
export function texts(value: Folded | null): Maybe<string[]> {
  if (value?.kind === 'value' && typeof value.value === 'string') return stated([value.value], value.at)
  if (value?.kind === 'computed') return computed(value.expression, value.at)
  if (value?.kind !== 'list') return null
  return stated(
    value.items.flatMap((item) =>
      item.kind === 'value' && typeof item.value === 'string' ? [item.value] : [],
    ),
    value.at,
  )
}

/** One text, or what should be one, in an object of the configuration that may have others inside. */
export interface Leaf {
  readonly path: readonly string[]
  readonly value: string | null
  readonly at: Place
  /** The names beside it. */
  readonly siblings: readonly string[]
  /** The variable of the machine that builds, where it is written as that. */
  readonly takes?: string | undefined
}

/** The texts of an object, and those of the objects in it. */
export function leavesOf(value: Folded | null, above: readonly string[] = []): Leaf[] {
  if (value?.kind !== 'object') return []
  const names = [...value.members.keys()]
  return [...value.members].flatMap(([name, item]): Leaf[] => {
    const path = [...above, name]
    if (item.kind === 'object') return leavesOf(item, path)
    const siblings = names.filter((each) => each !== name)
    if (item.kind === 'computed') return [{ path, value: null, at: item.at, siblings, takes: item.variable }]
    return item.kind === 'value' && typeof item.value === 'string'
      ? [{ path, value: item.value, at: item.at, siblings }]
      : []
  })
}

/** Where the first text that matches stands in a file of the project. */
export function placeOf(
  file: string,
  source: string,
  pattern: RegExp,
): { place: Place; value: string } | null {
  const match = pattern.exec(source)
  if (!match) return null
  const before = source.slice(0, match.index)
  const line = before.split('\n').length
  return {
    place: { file, line, column: match.index - before.lastIndexOf('\n') },
    value: match[1] ?? match[0],
  }
}

/** Environment files as most tools that read them order them. */
export function usualEnvironmentFiles(mode: string): string[] {
  return ['.env', '.env.local', `.env.${mode}`, `.env.${mode}.local`]
}

/** The same of the first of these files that is there. */
export async function middlewareIn(
  text: ProjectSources['text'],
  files: readonly string[],
): Promise<Maybe<string[]>> {
  for (const file of files) {
    const source = await text(file)
    if (source !== null) return middlewarePaths(file, source)
  }
  return null
}
