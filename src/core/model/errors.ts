/** A key that every copy of this package shares, whichever copy made an error. */
const kindsKey = Symbol.for('wardoscope.error')

/**
 * An error that `instanceof` knows again when another copy of the package made it: a project may well have two, one installed
 * with a plugin. It carries the names of its kinds.
 */
export abstract class KnownError extends Error {
  static readonly kind: string = 'KnownError'

  constructor(message: string, options?: ErrorOptions) {
    super(message, options)
    const kinds: string[] = []
    for (let at: unknown = new.target; isKnown(at); at = Object.getPrototypeOf(at)) kinds.push(at.kind)
    // It is no part of what a person sees of an error.
    Object.defineProperty(this, kindsKey, { value: kinds })
  }

  static override [Symbol.hasInstance](this: { readonly kind: string }, error: unknown): boolean {
    if (typeof error !== 'object' || error === null) return false
    const kinds: unknown = (error as { [kindsKey]?: unknown })[kindsKey]
    // biome-ignore lint/complexity/noThisInStatic: `this` is the class that instanceof asks, which may be a derived one
    return Array.isArray(kinds) && kinds.includes(this.kind)
  }
}

function isKnown(at: unknown): at is { readonly kind: string } {
  return typeof at === 'function' && 'kind' in at
}

/** A value a person gave that can't be used. The message is one sentence, fit to print. */
export class UsageError extends KnownError {
  static override readonly kind: string = 'UsageError'
  override readonly name = 'UsageError'
  /** What would say it, by its name in the configuration: each face has its own way of naming it. */
  readonly setting: string | null

  constructor(
    message: string,
    { setting = null, ...options }: ErrorOptions & { setting?: string | null } = {},
  ) {
    super(message, options)
    this.setting = setting
  }
}

/** Why a folder or a file could not be looked at. The message is one sentence, fit to print. */
export class FolderError extends KnownError {
  static override readonly kind: string = 'FolderError'
  override readonly name = 'FolderError'
  readonly reason: 'missing' | 'unreadable'

  constructor(reason: 'missing' | 'unreadable', message: string) {
    super(message)
    this.reason = reason
  }
}

/** Says that a file is larger than is read of such a file. @param most bytes */
export function tooLarge(file: string, most: number): FolderError {
  return new FolderError('unreadable', `${file} is larger than ${most / 1_000_000} MB, and is not read.`)
}

/** What code that does not come with the package threw: it is its author's to repair, so the error names it. */
export function thrownByOwnCode(what: string, error: unknown): UsageError {
  const [message] = (error instanceof Error ? error.message : String(error)).split('\n')
  return new UsageError(`${what} does not come with this program, and it threw an error: ${message}`, {
    cause: error,
  })
}
