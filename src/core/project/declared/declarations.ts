import { joinPath } from '../../model/folder.ts'
import type { Place } from '../../model/reading.ts'
import { containerCopies } from './container-files.ts'
import type { DeployFiles } from './deploy-files.ts'
import { isBuildDirectory } from './shipping-commands.ts'
import { visitData } from './visit-data.ts'

/** What a deploy or pipeline file says of the build. */
export interface Declaration {
  readonly kind: 'publish-directory' | 'build-command'
  readonly value: string
  readonly place: Place
  /** It is copied or kept there, which may be for another reason than to publish this build. */
  readonly perhaps?: true
}

/** Keys that mean a publish directory wherever they stand, and keys that mean one below a certain parent. */
const publishKey =
  /^(?:publish|publish[-_]?(?:dir|directory|path)|output[-_]?(?:dir|directory|location)|dist[-_]?(?:dir|directory)|static[-_]?publish[-_]?path|upload[-_]?dir(?:ectory)?|(?:site|web)[-_]?dir(?:ectory)?)$/i
const publishBelow: readonly (readonly [parent: RegExp, key: RegExp])[] = [
  [/^(?:hosting|site|static[-_]?site)$/i, /^(?:public|root|directory|path|dir)$/i],
  [/^(?:assets|static)$/i, /^directory$/i],
]
const buildKey = /^build[-_]?command$/i
const buildBelow: readonly (readonly [parent: RegExp, key: RegExp])[] = [[/^build$/i, /^command$/i]]

const variables = /^(?:env|environment|variables)$/i

/** A path as declarations write it: no spaces, no variables, no address. */
const pathLike = /^\.{0,2}\/?[\w@][\w@./-]*$/

/** Recognises, by shape alone, publish directories and build commands that the project's own files declare. */
export function declarationsIn({ data, containers, commands }: DeployFiles): Declaration[] {
  const found: Declaration[] = []
  for (const { value } of data) {
    visitData(value, (item, { keys, isItem }) => {
      const [key = '', parent = ''] = keys.toReversed()
      // What a step hands to the build as a variable, the build may follow; it names no folder by itself.
      if (item.kind === 'object' && variables.test(key)) return false
      if (item.kind !== 'value' || typeof item.value !== 'string') return true
      found.push(...uploadsIn(item.value, item.at, [key, parent], isItem))
      if (isItem) return true
      const kind = kindOf(key, parent, item.value)
      if (kind === 'publish-directory') found.push({ kind, value: plainPath(item.value), place: item.at })
      else if (kind !== null) found.push({ kind, value: item.value, place: item.at })
      return true
    })
  }
  const kind = 'publish-directory' as const
  for (const container of containers)
    found.push(...containerCopies(container).map((copy) => ({ kind, ...copy })))
  found.push(
    ...commands.map(({ directory, place }) => ({ kind, value: directory, place, perhaps: true as const })),
  )
  return found
}

/** Where steps of pipelines say what they upload or keep: `with: { path: dist }`, `artifacts: { paths: [dist] }`. */
const uploadBelow: readonly (readonly [parent: RegExp, key: RegExp])[] = [
  [/^(?:with|inputs|parameters)$/i, /^(?:path|paths|folder|directory|source)$/i],
  [/^artifacts$/i, /^paths?$/i],
]

function uploadsIn(
  text: string,
  place: Place,
  [key, parent]: readonly [key: string, parent: string],
  isItem: boolean,
): Declaration[] {
  const isUpload =
    (isItem && /^artifacts$/i.test(key)) ||
    uploadBelow.some(([above, name]) => above.test(parent) && name.test(key))
  if (!isUpload) return []
  return text
    .split('\n')
    .map((line) => plainPath(line.trim()))
    .filter(isBuildDirectory)
    .map((value) => ({ kind: 'publish-directory', value, place, perhaps: true }))
}

function kindOf(key: string, parent: string, text: string): Declaration['kind'] | null {
  const means = (own: RegExp, below: typeof publishBelow): boolean =>
    own.test(key) || below.some(([above, name]) => above.test(parent) && name.test(key))
  if (means(publishKey, publishBelow) && pathLike.test(text)) return 'publish-directory'
  return means(buildKey, buildBelow) ? 'build-command' : null
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
  return value === '' || writtenBy(written, projects).includes(joinPath(value))
}

/** The directories that builds of the repository write, as seen from its root and from their projects. */
export function writtenBy(
  written: string | null,
  projects: readonly { readonly directory: string; readonly publishDirectory: string | null }[],
): string[] {
  const known = projects.flatMap(({ directory, publishDirectory: path }) =>
    path === null ? [] : [joinPath(path), joinPath(directory, path)],
  )
  return written === null ? known : [joinPath(written), ...known]
}
