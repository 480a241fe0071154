import { joinPath } from '../../model/folder.ts'
import { byDefault, computed, type Place, type Reading, stated } from '../../model/reading.ts'
import { optionReading } from '../build-command.ts'
import { belowProject, type Folded, member } from '../config/value.ts'
import type { Framework, FrameworkReadings, ProjectSources } from './framework.ts'

const by = "Vite's default"

/** Vite. Checked against Vite 8. */
export const vite: Framework = {
  name: 'vite',
  title: 'Vite',
  marker: 'vite',
  configFiles: ['js', 'mjs', 'ts', 'cjs', 'mts', 'cts'].map((ending) => `vite.config.${ending}`),
  build: { words: 'vite build' },
  environmentFiles: (mode) => ['.env', '.env.local', `.env.${mode}`, `.env.${mode}.local`],
  configArgument: (mode) => ({ mode, command: 'build', isSsrBuild: false, isPreview: false }),
  read,
  remedies: {
    setBase: (base) => `base: '${base}',`,
    environmentFile: '.env.production',
  },
}

function read(project: ProjectSources): FrameworkReadings {
  const { build } = project
  const config = project.config?.value ?? null
  const root = pathText(member(config, 'root')) ?? build.words[0] ?? ''
  const outDir =
    optionReading(build, 'outDir') ??
    readingOf(member(config, 'build', 'outDir'), isText) ??
    byDefault('dist', by)
  const mode =
    optionReading(build, 'mode', 'm') ??
    readingOf(member(config, 'mode'), isText) ??
    byDefault('production', by)
  const envDir = pathText(member(config, 'envDir')) ?? ''
  const files = vite.environmentFiles(mode.value ?? 'production')
  return {
    publishDirectory: mapReading(outDir, (path) => {
      const below = belowProject(path)
      return below === null ? null : joinPath(path.startsWith('/') ? '' : root, below)
    }),
    basePath: optionReading(build, 'base') ?? readingOf(member(config, 'base'), isText) ?? byDefault('/', by),
    mode,
    prefixes: prefixes(member(config, 'envPrefix')) ?? byDefault(['VITE_'], by),
    environmentFiles: files.map((file) => joinPath(root, envDir, file)),
    devProxy: devProxy(member(config, 'server', 'proxy')),
  }
}

function prefixes(value: Folded | null): Reading<string[] | null> | null {
  if (value?.kind !== 'list') return mapReading(readingOf(value, isText), (prefix) => [prefix])
  const items = value.items.flatMap((item) =>
    item.kind === 'value' && isText(item.value) ? [item.value] : [],
  )
  return stated(items, value.at)
}

function devProxy(value: Folded | null): Reading<string[] | null> {
  if (value?.kind === 'object') return stated([...value.members.keys()], value.at)
  return value?.kind === 'computed' ? computed(value.expression, value.at) : byDefault([], by)
}

/** A folded value as a reading, when it is of the wanted type; computed when it can't be known. */
export function readingOf<T>(
  value: Folded | null,
  is: (value: unknown) => value is T,
): Reading<T | null> | null {
  if (value?.kind === 'computed') return computed(value.expression, value.at)
  return value?.kind === 'value' && is(value.value) ? stated<T>(value.value, value.at) : null
}

function mapReading<A, B>(reading: Reading<A | null>, map: (value: A) => B): Reading<B | null>
function mapReading<A, B>(reading: Reading<A | null> | null, map: (value: A) => B): Reading<B | null> | null
function mapReading<A, B>(reading: Reading<A | null> | null, map: (value: A) => B): Reading<B | null> | null {
  return reading && { ...reading, value: reading.value === null ? null : map(reading.value) }
}

function isText(value: unknown): value is string {
  return typeof value === 'string'
}

function pathText(value: Folded | null): string | null {
  return value?.kind === 'value' && isText(value.value) ? belowProject(value.value) : null
}

/** The place where a member of the configuration would be written: just inside the object. */
export function insertionPlace(project: Pick<ProjectSources, 'config'>): Place | null {
  const value = project.config?.value
  return value?.kind === 'object' ? value.at : null
}
