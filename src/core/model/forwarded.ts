/** Alternatives of one pattern that are told apart; more are not looked for one by one. */
const mostBeginnings = 32

/**
 * How the paths begin that an entry of a development server's proxy forwards. An entry is a path, of which it is the
 * beginning, or a pattern behind "^", of which its plain beginning counts: `^/(api|auth)/.*` is `/api/` and `/auth/`. The
 * pattern itself is never run: it is the project's, and may take for ever. Empty for an entry that forwards whatever no
 * file answers.
 */
export function beginningsOf(entry: string): string[] {
  if (!entry.startsWith('^')) return isTelling(entry) ? [entry] : []
  return plainBeginnings(entry.slice(1)).filter(isTelling)
}

/** Whether an entry forwards a path. */
export function forwards(entry: string, path: string): boolean {
  return beginningsOf(entry).some((beginning) => path.startsWith(beginning))
}

/** A path that says more than "everything". */
function isTelling(path: string): boolean {
  return /^\/[\w@./-]*\w/.test(path)
}

/** The texts that a pattern begins with, as far as it is plain: letters, escaped signs, groups of plain alternatives. */
function plainBeginnings(pattern: string): string[] {
  let found = ['']
  let rest = pattern
  for (;;) {
    const next = /^(?:([\w/@-])|\\([^\w])|\((?:\?:)?([\w/@|-]+)\)(?![?*+{]))/.exec(rest)
    const repeated = next && /^[?*+{]/.test(rest.slice(next[0].length))
    if (!next || repeated) return found
    const alternatives = next[3]?.split('|') ?? [next[1] ?? next[2] ?? '']
    if (found.length * alternatives.length > mostBeginnings) return found
    found = found.flatMap((text) => alternatives.map((each) => text + each))
    rest = rest.slice(next[0].length)
  }
}
