import type { CredentialShape } from '../model/facts.ts'
import { type Mentions, WordList } from './words.ts'

/** What the shape is called where the variables of the machine that built stand in a file, all of them. */
export const machineEnvironment = 'the environment of the machine that built it'

/** The list of directories that commands are looked for in: every system has it, and no page does. */
const pathValue = /(?:PATH|Path)["']?\s{0,40}:\s{0,40}["'`](?:\/[^"'`]{0,400}:\/|[A-Za-z]:\\[^"'`]{0,400};)/y
const keyBefore = /[{,]\s{0,40}["']?$/
const longestBefore = 42

/** What its lists of directories are found by. */
export const environmentWords = ['path']
const own = new WordList(environmentWords)

const entry =
  /\s*(?:["']([^"'\\]{1,200})["']|([\w$]{1,200}))\s*:\s*(?:"(?:[^"\\]|\\[\s\S])*"|'(?:[^'\\]|\\[\s\S])*'|`(?:[^`\\]|\\[\s\S])*`)\s*(,|\})/y

/** Names that systems and their shells set. */
const ofSystem =
  /^(?:HOME|USER|LOGNAME|PWD|OLDPWD|SHELL|SHLVL|HOSTNAME|LANG|TERM|TMPDIR|_|SystemRoot|windir|USERPROFILE|USERNAME|APPDATA|LOCALAPPDATA|COMPUTERNAME|ComSpec|TEMP|TMP|OS)$/i
/** Names that a package manager gives the scripts it runs. */
const ofScript = /^(?:npm_[a-z]|INIT_CWD$|NODE$)/

/** A real one has more; a page that plays a terminal sets a handful. */
const fewestNames = 12
const mostBefore = 200_000
const mostTried = 40

/**
 * Objects that hold the whole environment of a machine, as they come into a script when a configuration defines
 * `process.env` by all of it.
 */
export function machineEnvironmentsIn(text: string, mentions: Mentions = own.in(text)): CredentialShape[] {
  const found: CredentialShape[] = []
  for (const at of mentions.ofAnyCase('path')) {
    pathValue.lastIndex = at
    if (!pathValue.test(text)) continue
    const before = text.slice(Math.max(0, at - longestBefore), at)
    const key = keyBefore.exec(before)
    if (!key) continue
    const index = at - before.length + key.index
    const last = found.at(-1)
    if (last && index < last.offset + last.length) continue
    const object = objectAround(text, index)
    if (object) found.push(object)
  }
  return found
}

/** Braces stand in values too, so that the nearest one before need not be the object's. */
function objectAround(text: string, at: number): CredentialShape | null {
  let open = at + 1
  for (let tried = 0; tried < mostTried; tried++) {
    open = text.lastIndexOf('{', open - 1)
    if (open < 0 || at - open > mostBefore) return null
    const { names, end } = entriesFrom(text, open + 1)
    if (end > at && isOfMachine(names))
      return {
        kind: machineEnvironment,
        offset: open,
        length: end - open,
        reason: `${names.length} variables, ${telling(names)} among them`,
        live: true,
      }
    if (open === 0) return null
  }
  return null
}

function entriesFrom(text: string, start: number): { names: string[]; end: number } {
  const names: string[] = []
  entry.lastIndex = start
  let end = start
  for (let match = entry.exec(text); match !== null; match = entry.exec(text)) {
    names.push(match[1] ?? match[2] ?? '')
    end = entry.lastIndex
    if (match[3] === '}') break
  }
  return { names, end }
}

function isOfMachine(names: readonly string[]): boolean {
  const has = (pattern: RegExp): number => names.filter((name) => pattern.test(name)).length
  return names.length >= fewestNames && has(ofSystem) >= 2 && (has(ofScript) > 0 || has(ofSystem) >= 5)
}

/** Names of no secret, which say what it is. */
function telling(names: readonly string[]): string {
  const shown = ['PATH', 'Path', 'HOME', 'USERPROFILE', 'PWD', 'npm_lifecycle_event'].filter((name) =>
    names.includes(name),
  )
  return shown.slice(0, 2).join(' and ')
}
