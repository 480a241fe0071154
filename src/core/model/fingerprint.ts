/**
 * A short, stable name for a finding: 64-bit FNV-1a over its parts, in hex. It tells findings apart between
 * runs and hides nothing: what must stay secret never goes in.
 */
export function fingerprint(...parts: readonly string[]): string {
  let hash = 0xcbf29ce484222325n
  for (const byte of new TextEncoder().encode(parts.join('\u0000'))) {
    hash = BigInt.asUintN(64, (hash ^ BigInt(byte)) * 0x100000001b3n)
  }
  return hash.toString(16).padStart(16, '0')
}

// Eight characters of base64url (Rollup and its kin) or a run of hex (webpack and its kin), after a dot or a dash.
// A letter and a digit, or mixed case, must be in it, so that plain words and dates are no hashes: nor are a word with
// a capital and one with a number (`Ultimate`, `editor-1`), of which a thousandth of all hashes has the form.
// webpack names what it emits by the hash alone when nobody says otherwise.
const hash =
  /([.-])(?=[\w-]{0,63}[A-Za-z])(?=[\w-]{0,63}[A-Z\d])(?!(?:[A-Z][a-z]{7}|(?![\da-f]{8})[a-z]+-?\d{1,3})\.)(?:[\w-]{8}|[\da-f]{6,64})(?=(?:\.[a-z]\w*){1,2}$)|(^|\/)[\da-f]{16,64}(?=(?:\.[a-z]\w*){1,2}$)/

/** The file name without what a bundler adds for caching, so that it stays the same from build to build. */
export function withoutHash(path: string): string {
  return path.replace(hash, '$1$2*')
}

/** Whether a file name carries a digest so long that nobody writes it by hand. */
export function isDigested(path: string): boolean {
  return /(?:^|[./-])(?=[\da-f]*\d)(?=[\da-f]*[a-f])[\da-f]{16,64}(?:\.[a-z]\w*){1,2}$/.test(path)
}

/** Whether a file name carries a content hash. */
export function isHashed(path: string): boolean {
  return hash.test(path)
}

/**
 * What the hash in a name looks like to the eye: where it stands and how long it is. A build gives all that it emits into
 * a directory the same; null where there is none.
 */
export function hashShape(path: string): string | null {
  const match = hash.exec(path)
  return match && `${match[1] ?? ''}${match[0].length}`
}
