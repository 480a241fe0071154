import { joinPath } from '../model/folder.ts'
import type { Place } from '../model/reading.ts'
import type { Folded } from '../syntax/value.ts'
import type { DeployFile } from './deploy-files.ts'

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
  for (const { value } of files) collect(value, [], found)
  return found
}

function collect(value: Folded, path: readonly string[], found: Declaration[]): void {
  if (value.kind === 'list') for (const item of value.items) collect(item, path, found)
  if (value.kind !== 'object') return
  const parent = path.at(-1) ?? ''
  // What a step hands to the build as a variable, the build may follow; it names no folder by itself.
  if (variables.test(parent)) return
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
