import { extensionOf, type Folder, joinPath, listIfThere } from '../model/folder.ts'
import type { Place } from '../model/reading.ts'
import { readText } from '../model/text.ts'
import { foldData } from './config/data-files.ts'
import { SyntaxProblem } from './config/modules.ts'
import type { Folded } from './config/value.ts'

/** What a deploy or pipeline file says of the build. */
export interface Declaration {
  readonly kind: 'publish-directory' | 'build-command'
  readonly value: string
  readonly place: Place
}

/** Data files at the root that say nothing of deployment. */
const otherFiles =
  /^(?:package(?:-lock)?|npm-shrinkwrap|composer|tsconfig.*|jsconfig|angular|nx|turbo|lerna|biome|components|deno|renovate|project|manifest|site|app)\.jsonc?$|^pnpm-(?:lock|workspace)\.ya?ml$|-lock\.|^_config\.|^(?:hugo|config|pubspec|Cargo|pyproject)\./

/** Dot folders of editors, tools and repositories. */
const otherFolders =
  /^\.(?:git|hg|svn|vscode|idea|storybook|next|nuxt|output|svelte-kit|astro|cache|parcel-cache|angular|husky|yarn|pnpm-store|vitepress|docusaurus|nitro|vinxi|tanstack|react-router)$/

const deepestDotFolder = 3

/** Keys that mean a publish directory wherever they stand, and keys that mean one below a certain parent. */
const publishKey =
  /^(?:publish|publish[-_]?(?:dir|directory|path)|output[-_]?(?:dir|directory|location)|dist[-_]?(?:dir|directory)|static[-_]?publish[-_]?path|upload[-_]?dir(?:ectory)?|site[-_]?dir(?:ectory)?)$/i
const publishBelow: readonly (readonly [parent: RegExp, key: RegExp])[] = [
  [/^(?:hosting|site|static[-_]?site)$/i, /^(?:public|root|directory|path|dir)$/i],
  [/^(?:assets|static)$/i, /^directory$/i],
]
const buildKey = /^build[-_]?command$/i
const buildBelow: readonly (readonly [parent: RegExp, key: RegExp])[] = [[/^build$/i, /^command$/i]]

/** A path as declarations write it: no spaces, no variables, no address. */
const pathLike = /^\.{0,2}\/?[\w@][\w@./-]*$/

/**
 * Recognises, by shape alone, publish directories and build commands that the project's own files declare: root-level
 * JSON, YAML and TOML, and pipeline files in dot folders. No format is known by name.
 */
export async function readDeclarations(folder: Folder): Promise<Declaration[]> {
  const found: Declaration[] = []
  for (const file of await dataFiles(folder)) {
    const text = await readText(folder, file)
    if (text === null) continue
    const value = await foldQuietly(file, text)
    if (value) collect(value, [], found)
  }
  return found
}

async function dataFiles(folder: Folder): Promise<string[]> {
  const files: string[] = []
  for (const { name, kind } of (await listIfThere(folder, '')) ?? []) {
    if (kind === 'file' && isData(name) && !otherFiles.test(name)) files.push(name)
    if (kind === 'directory' && name.startsWith('.') && !otherFolders.test(name))
      files.push(...(await pipelineFiles(folder, name, 1)))
  }
  return files
}

async function pipelineFiles(folder: Folder, directory: string, depth: number): Promise<string[]> {
  const files: string[] = []
  for (const { name, kind } of (await listIfThere(folder, directory)) ?? []) {
    const path = joinPath(directory, name)
    if (kind === 'file' && isData(name)) files.push(path)
    else if (kind === 'directory' && depth < deepestDotFolder)
      files.push(...(await pipelineFiles(folder, path, depth + 1)))
  }
  return files
}

function isData(name: string): boolean {
  return (
    ['json', 'jsonc', 'yaml', 'yml', 'toml'].includes(extensionOf(name)) || /^\.[a-z-]+\.ya?ml$/.test(name)
  )
}

/** A file we can't read declares nothing to us; its own tool will complain. */
async function foldQuietly(file: string, text: string): Promise<Folded | null> {
  try {
    return await foldData(file, text)
  } catch (error) {
    if (error instanceof SyntaxProblem) return null
    throw error
  }
}

function collect(value: Folded, path: readonly string[], found: Declaration[]): void {
  if (value.kind === 'list') for (const item of value.items) collect(item, path, found)
  if (value.kind !== 'object') return
  const parent = path.at(-1) ?? ''
  const means = (key: string, own: RegExp, below: typeof publishBelow): boolean =>
    own.test(key) || below.some(([above, name]) => above.test(parent) && name.test(key))
  for (const [key, item] of value.members) {
    if (item.kind === 'value' && typeof item.value === 'string') {
      const text = item.value
      if (means(key, publishKey, publishBelow) && pathLike.test(text)) {
        found.push({ kind: 'publish-directory', value: plainPath(text), place: item.at })
      } else if (means(key, buildKey, buildBelow)) {
        found.push({ kind: 'build-command', value: text, place: item.at })
      }
    }
    collect(item, [...path, key], found)
  }
}

function plainPath(text: string): string {
  return joinPath(text.replace(/\/\*{1,2}$/, ''))
}

/** Whether a declared publish directory is one that a build of the repository writes, as seen from its root or its project. */
export function isWritten(
  value: string,
  written: string | null,
  projects: readonly { readonly directory: string; readonly publishDirectory: string | null }[],
): boolean {
  const known = projects.flatMap(({ directory, publishDirectory: path }) =>
    path === null ? [] : [joinPath(path), joinPath(directory, path)],
  )
  return (
    value === '' ||
    (written !== null && joinPath(written) === joinPath(value)) ||
    known.includes(joinPath(value))
  )
}
