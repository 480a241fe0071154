import { joinPath } from '../../model/folder.ts'
import type { Place } from '../../model/reading.ts'
import type { DeployFile } from './deploy-files.ts'
import { visitData } from './visit-data.ts'

/** What a deploy or pipeline file says of the build. */
export interface Declaration {
  readonly kind: 'publish-directory' | 'build-command'
  readonly value: string
  readonly place: Place
}

/** Keys that mean a publish directory wherever they stand, and keys that mean one below a certain parent. */
const publishKey =
  /^(?:publish|publish[-_]?(?:dir|directory|path)|output[-_]?(?:dir|directory|location)|dist[-_]?(?:dir|directory)|static[-_]?publish[-_]?path|upload[-_]?dir(?:ectory)?|site[-_]?dir(?:ectory)?)$/i
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
export function declarationsIn(files: readonly DeployFile[]): Declaration[] {
  const found: Declaration[] = []
  for (const { value } of files) {
    visitData(value, (item, { keys, isItem }) => {
      const [key = '', parent = ''] = keys.toReversed()
      // What a step hands to the build as a variable, the build may follow; it names no folder by itself.
      if (item.kind === 'object' && variables.test(key)) return false
      if (item.kind !== 'value' || typeof item.value !== 'string' || isItem) return true
      const kind = kindOf(key, parent, item.value)
      if (kind === 'publish-directory') found.push({ kind, value: plainPath(item.value), place: item.at })
      else if (kind !== null) found.push({ kind, value: item.value, place: item.at })
      return true
    })
  }
  return found
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
  const known = projects.flatMap(({ directory, publishDirectory: path }) =>
    path === null ? [] : [joinPath(path), joinPath(directory, path)],
  )
  return (
    value === '' ||
    (written !== null && joinPath(written) === joinPath(value)) ||
    known.includes(joinPath(value))
  )
}
