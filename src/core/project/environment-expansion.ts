import expandOlder from 'dotenv-expand-5'
import { expand as expandNext } from 'dotenv-expand-10'
import type { Expansion } from '../frameworks/framework.ts'

type Parsed = Record<string, string>

const libraries: Readonly<Record<'next' | 'older', (parsed: Parsed) => Readonly<Parsed>>> = {
  next: (parsed) => expandNext({ parsed, ignoreProcessEnv: true }).parsed ?? parsed,
  // Its types leave out what its code reads.
  older: (parsed) =>
    expandOlder({ parsed, ignoreProcessEnv: true } as Parameters<typeof expandOlder>[0]).parsed ?? parsed,
}

/** No setting is longer once its variables are in it: these files are somebody else's, and may be made to fill a memory. */
const longest = 100_000
/** A value that is put together from more variables than this is none that a person wrote. */
const mostReferences = 200
/** Nor is one that is made of others so many times over. */
const deepest = 100

const reference = /\$\{?([A-Za-z_][\w.-]*)/g

/**
 * Replaces variables by values of the same set, as the framework's own loader does. A circle, and what would grow beyond all
 * measure, is left as written.
 */
export function expandAll(values: ReadonlyMap<string, string>, kind: Expansion): Map<string, string> {
  if (kind === 'none') return new Map(values)
  // What is expanded already, and the others as they are written.
  const known = new Map(values)
  const sizes = new Sizes(values)
  for (const [name, value] of values) {
    const needed = value.includes('$') ? neededFor(name, values, sizes) : null
    if (needed === null) continue
    known.set(
      name,
      kind === 'current' ? expandCurrent(value, known) : byLibrary(kind, name, needed, values, known),
    )
  }
  return known
}

/** Steps after which a value is left as it is. */
const mostSteps = 1_000

const expression = /(?<!\\)\$\{([^{}]+)\}|(?<!\\)\$([A-Za-z_]\w*)/

/**
 * As Vite 8 does: with dotenv-expand 13, changed so that variables defined further below are known too. What is put in is
 * looked at again, until it is one variable's value or holds no variable any more; and it is taken as the pattern of a
 * replacement, so that `$$` becomes `$`.
 */
function expandCurrent(value: string, known: ReadonlyMap<string, string>): string {
  const seen = new Set<string>()
  let result = value
  for (let step = 0; ; step++) {
    const match = expression.exec(result)
    if (match === null) break
    if (step >= mostSteps || result.length > longest) return value
    seen.add(result)
    const inner = match[1] ?? match[2] ?? ''
    const operator = /:\+|\+|:-|-/.exec(inner)
    const name = operator ? inner.slice(0, operator.index) : inner
    const text = operator ? inner.slice(operator.index + operator[0].length) : ''
    const found = known.get(name) ?? ''
    const instead = operator?.[0].endsWith('+') ? (found === '' ? '' : text) : found === '' ? text : found
    result = result.replace(match[0], seen.has(found) && instead === found ? text : instead)
    if (result === known.get(name)) break
  }
  return result.replaceAll('\\$', '$')
}

function byLibrary(
  kind: 'next' | 'older',
  name: string,
  needed: ReadonlySet<string>,
  values: ReadonlyMap<string, string>,
  known: ReadonlyMap<string, string>,
): string {
  const own = values.get(name) ?? ''
  if (isRisky(own, needed, values)) return inOnePass(own, known)
  const parsed: Parsed = Object.create(null)
  // The order of the file decides what is known when.
  for (const [each, value] of values) if (needed.has(each) || each === name) parsed[each] = value
  try {
    return libraries[kind](parsed)[name] ?? own
  } catch (error) {
    // Both call themselves for what they put in, and have no bound of their own.
    if (error instanceof RangeError) return inOnePass(own, known)
    throw error
  }
}

/** The variables that a value is made of, directly or not; null for a circle, and when the value would grow too long. */
function neededFor(
  name: string,
  values: ReadonlyMap<string, string>,
  sizes: Sizes,
): ReadonlySet<string> | null {
  if (sizes.of(name) > longest) return null
  const needed = new Set<string>()
  const waiting = [name]
  for (let each = waiting.pop(); each !== undefined; each = waiting.pop()) {
    for (const inner of referencesIn(values.get(each) ?? '')) {
      if (!values.has(inner) || needed.has(inner)) continue
      needed.add(inner)
      waiting.push(inner)
    }
    if (needed.size > mostReferences) return null
  }
  return needed
}

/** How long values are with all that they are made of; endless for circles and for chains that nobody writes. */
class Sizes {
  readonly #values: ReadonlyMap<string, string>
  readonly #known = new Map<string, number>()

  constructor(values: ReadonlyMap<string, string>) {
    this.#values = values
  }

  of(name: string, depth = 0): number {
    const known = this.#known.get(name)
    if (known !== undefined) return known
    // Whoever comes back to it before it is known goes in a circle.
    this.#known.set(name, Number.POSITIVE_INFINITY)
    if (depth > deepest) return Number.POSITIVE_INFINITY
    const value = this.#values.get(name) ?? ''
    let size = value.length
    for (const inner of referencesIn(value)) {
      if (this.#values.has(inner)) size += this.of(inner, depth + 1)
      if (size > longest) return Number.POSITIVE_INFINITY
    }
    this.#known.set(name, size)
    return size
  }
}

function referencesIn(value: string): string[] {
  return [...value.matchAll(reference)].flatMap(([, name = '']) => {
    // `${A-b}` names A; a name with a dash in it may be meant as a whole.
    const plain = name.split('-')[0] ?? name
    return plain === name ? [name] : [name, plain]
  })
}

/**
 * Whether the library may not end, or trip: it takes what it puts in as the pattern of a replacement, looks at that again, and
 * knows the members that every object has.
 */
function isRisky(own: string, needed: ReadonlySet<string>, values: ReadonlyMap<string, string>): boolean {
  // A dollar of its own may make a name with what is put in behind it.
  if (/\$(?![A-Za-z_{])/.test(own)) return true
  if (referencesIn(own).some((name) => name in Object.prototype)) return true
  return [...needed].some((name) => {
    const value = values.get(name) ?? ''
    return /\\\$|\$(?![A-Za-z_{])/.test(value) || referencesIn(value).some((each) => each in Object.prototype)
  })
}

/** The same by one pass over the value, which always ends. */
function inOnePass(value: string, known: ReadonlyMap<string, string>): string {
  const escapedOr = /(\\)?\$(?:\{([\w.]+)(?::-([^{}]*))?\}|(\w+))/g
  return value.replace(escapedOr, (whole, escaped?: string, braced?: string, text = '', bare?: string) =>
    escaped === undefined ? known.get(braced ?? bare ?? '') || text : whole.slice(1),
  )
}
