import type { Expansion } from '../frameworks/framework.ts'
import { type Folder, joinUp } from '../model/folder.ts'
import { Mask } from '../model/mask.ts'
import type { Place } from '../model/reading.ts'
import type { SearchedValue } from '../model/search.ts'
import { readText } from '../model/text.ts'
import { expandAll } from './environment-expansion.ts'

/** One environment file: its names with their places. Values are kept apart, see {@link EnvironmentValues}. */
export interface EnvironmentFile {
  readonly file: string
  readonly names: ReadonlyMap<string, Place>
}

/**
 * The values behind the names, in memory only: nothing here is reachable by walking an object's properties, so no
 * report, log or cache can carry a value by accident.
 */
export class EnvironmentValues {
  readonly #values: ReadonlyMap<string, string>
  readonly #development: ReadonlyMap<string, string>
  readonly #inherited: ReadonlyMap<string, string>
  readonly #ofProcess: ReadonlyMap<string, string>

  /**
   * @param values those of production, by name
   * @param development those that only development loads
   * @param inherited secrets of the process that runs this, and of files that a script of the project's own may load
   * @param ofProcess what the process that runs this sets of the public ones: a build started by it would take these
   */
  constructor(
    values: ReadonlyMap<string, string> = new Map(),
    development: ReadonlyMap<string, string> = new Map(),
    inherited: ReadonlyMap<string, string> = new Map(),
    ofProcess: ReadonlyMap<string, string> = new Map(),
  ) {
    this.#values = values
    this.#development = development
    this.#inherited = inherited
    this.#ofProcess = ofProcess
  }

  /**
   * The same with the environment of the process. Kept are the variables that a build makes public, by prefix or because a
   * source reads them, and of all others only what is named as a secret and looks like one.
   */
  withProcess(
    environment: Readonly<Record<string, string | undefined>>,
    prefixes: readonly string[],
    { read, passedOn }: { readonly read: ReadonlySet<string>; readonly passedOn: ReadonlySet<string> },
  ): EnvironmentValues {
    const secrets = new Map<string, string>()
    const open = new Map<string, string>()
    for (const [name, value] of Object.entries(environment)) {
      if (value === undefined) continue
      const prefix = prefixes.find((each) => name.startsWith(each))
      if (prefix || passedOn.has(name) || (prefix === '' && read.has(name))) open.set(name, value)
      else if (secretName.test(name) && isSecret(name, value)) secrets.set(name, value)
    }
    const inherited = new Map([...this.#inherited, ...secrets])
    return new EnvironmentValues(this.#values, this.#development, inherited, open)
  }

  /** The same with the secrets of files beside those that the builder reads, by their names. */
  withSecretsOf(others: EnvironmentValues): EnvironmentValues {
    const secrets = [...others.#values].filter(
      ([name, value]) => isPrivateName(name) && isSecret(name, value),
    )
    const inherited = new Map([...this.#inherited, ...secrets])
    return new EnvironmentValues(this.#values, this.#development, inherited, this.#ofProcess)
  }

  /** The public variables that the process sets. */
  namesInProcess(): ReadonlySet<string> {
    return new Set(this.#ofProcess.keys())
  }

  /** The values of production, for searching. Never store or print what comes back. */
  forSearching(): ReadonlyMap<string, string> {
    return this.#values
  }

  /**
   * What is looked for in a build, each with what it means to find it. Never store or print what comes back.
   * @param passedOn names that the configuration passes on to the browser
   */
  searched(prefixes: readonly string[], passedOn: ReadonlySet<string> = new Set()): SearchedValue[] {
    const isPublic = (name: string): boolean =>
      passedOn.has(name) || prefixes.some((prefix) => name.startsWith(prefix))
    const named = [...this.#values, ...this.#ofProcess].filter(
      ([name, value]) => isPublic(name) && isPrivateName(name) && isSecret(name, value),
    )
    if (named.length > 0) {
      const names = new Set(named.map(([name]) => name))
      const rest = (values: ReadonlyMap<string, string>): Map<string, string> =>
        new Map([...values].filter(([name]) => !names.has(name)))
      const others = new EnvironmentValues(
        rest(this.#values),
        this.#development,
        this.#inherited,
        rest(this.#ofProcess),
      )
      // Whatever a build makes public by its prefix: a name that says so is of a secret.
      const secret = named.map(([name, value]): SearchedValue => ({ name, value, role: 'private' }))
      return [...others.searched(prefixes, passedOn), ...secret]
    }
    const shipped = new Set(
      [...this.#values, ...this.#ofProcess].filter(([name]) => isPublic(name)).map(([, value]) => value),
    )
    const of = (role: SearchedValue['role'], values: ReadonlyMap<string, string>): SearchedValue[] =>
      [...values].map(([name, value]) => ({ name, value, role }))
    // What the process sets as a file does is one.
    const more = of('present', this.#ofProcess).filter(({ name, value }) => this.#values.get(name) !== value)
    const own = [...of('present', this.#values), ...more].filter(
      ({ name, value }) => isPublic(name) && isTelling(value),
    )
    const isOwn = ({ name, value }: SearchedValue): boolean =>
      (!isPublic(name) || isPrivateName(name)) && !shipped.has(value)
    const files =
      prefixes.length > 0
        ? of('private', this.#values).filter(({ name, value }) => isSecret(name, value))
        : []
    const secret = [...of('private', this.#inherited), ...files].filter(isOwn)
    const early = of('development', this.#development).filter(({ name, value }) => {
      const real = this.#values.get(name)
      const ours = this.#ofProcess.get(name) === value
      return isPublic(name) && isTelling(value) && real !== undefined && !ours && !real.includes(value)
    })
    return [...own, ...secret, ...early]
  }

  /** Every value that may not be shown or kept. */
  secrets(): string[] {
    return this.#all()
      .map(([, value]) => value)
      .filter(isTelling)
  }

  /** Whether somebody is still to write the real value. */
  isPlaceholder(name: string): boolean {
    return placeholder.test(this.#values.get(name) ?? '')
  }

  #all(): [string, string][] {
    return [...this.#values, ...this.#development, ...this.#inherited, ...this.#ofProcess]
  }

  /**
   * What hides every value, in whatever form it is written.
   * @param open texts that are shown in any case, as the site's address
   */
  mask(open: readonly string[] = []): Mask {
    return new Mask(
      this.#all().filter(([, value]) => isTelling(value)),
      open,
    )
  }
}

/** Names that people give to what must not be known. */
const secretName = /key|token|secret|passw|passphrase|credential|private|auth/i

/** Names of what no browser may have, however they begin. A token alone may be meant for it: of maps, of a site key. */
const privateName =
  /(?:^|[_.-])(?:passw(?:or)?d|passphrase|pwd|secret|secret_?key|private_?key|signing_?key|encryption_?key|service_?(?:role_?)?key|credentials?|(?:server|service|admin|deploy|bot|root|refresh)_?token)$/i

/** Whether the name of a variable says that its value is private. */
export function isPrivateName(name: string): boolean {
  return privateName.test(name.replace(/([a-z\d])([A-Z])/g, '$1_$2'))
}

/** What stands in an environment file until somebody writes the real value. */
const placeholder =
  /^(?:change[-_ ]?me|replace[-_ ]?me|todo|tbd|fixme|x{3,}|\.{3,}|<[^>]*>|(?:your|my|insert|enter|put)[-_ ].*|.*[-_](?:here|goes-here)|placeholder|dummy|none|null|undefined)$/i

/**
 * Whether a value found in a build can be nobody's but this variable's: long, mixed, and no plain address or word. An
 * address with a password in it is one, and so are some words or lines under the name of a secret.
 */
export function isSecret(name: string, value: string): boolean {
  if (/^[a-z][a-z+]*:\/\/[^/\s:]*:[^/\s@]+@/i.test(value)) return true
  if (/^[a-z][a-z+]*:\/\/|^[\w.-]+\.[a-z]{2,}$|^\//i.test(value) || placeholder.test(value)) return false
  if (/\s/.test(value)) return secretName.test(name) && value.length >= 16
  return value.length >= 12 && /[a-z]/i.test(value) && /\d/.test(value)
}

/** Short and common values stand in every bundle: they prove nothing and give nothing away. */
const shortest = 6
const common = /^(?:true|false|production|development|staging|default|\d+)$/i

/** Whether a value is long and rare enough to be known again. */
export function isTelling(value: string): boolean {
  return value.length >= shortest && !common.test(value)
}

const line =
  /^[ \t]*(?:export[ \t]+)?([\w.-]+)[ \t]*(?:=[ \t]*|:[ \t]+)("(?:\\.|[^"\\])*"|'(?:\\.|[^'\\])*'|`(?:\\.|[^`\\])*`|[^\r\n#]*)/gm

/** A larger file is no environment file; bytes. */
const largestEnvironmentFile = 1_000_000

/** Reads environment files in the given order; a later file's value wins. Missing files are passed over. */
export async function readEnvironmentFiles(
  folder: Folder,
  files: readonly string[],
  expansion: Expansion = 'current',
): Promise<{ files: EnvironmentFile[]; values: EnvironmentValues }> {
  const found: EnvironmentFile[] = []
  const values = new Map<string, string>()
  for (const path of files) {
    const file = joinUp(path)
    const text = await readText(folder, file, largestEnvironmentFile)
    if (text === null) continue
    const names = new Map<string, Place>()
    const parsed = parseEnvironment(text)
    for (const { name, at } of parsed) names.set(name, { file, line: at, column: 1 })
    // Vite 8 takes them in the order of their names, in which its parser (Node's own) gives them; others in the file's.
    if (expansion === 'current') parsed.sort((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : 0))
    for (const { name, value } of parsed) values.set(name, value)
    found.push({ file, names })
  }
  return { files: found, values: new EnvironmentValues(expandAll(values, expansion)) }
}

/** Names, values and lines of one environment file, in the form the common readers of such files share. */
function parseEnvironment(text: string): { name: string; value: string; at: number }[] {
  const found: { name: string; value: string; at: number }[] = []
  let counted = 0
  let at = 1
  for (const match of text.matchAll(line)) {
    const name = match[1] ?? ''
    for (; counted < match.index; counted++) if (text.charCodeAt(counted) === 10) at++
    const written = (match[2] ?? '').trim()
    const quote = /^(["'`])([\s\S]*)\1$/.exec(written)
    const plain = quote?.[2] ?? written
    const value = quote?.[1] === '"' ? plain.replace(/\\n/g, '\n').replace(/\\r/g, '\r') : plain
    // Leading blanks of the match hold no line break, so the line counted to here is the name's.
    found.push({ name, value, at })
  }
  return found
}
