import { printable } from './text.ts'

/** Why an archive is not taken; completes "site.zip …". */
export class ArchiveProblem extends Error {
  override readonly name = 'ArchiveProblem'

  /** Names in an archive may hold anything. */
  constructor(message: string) {
    super(printable(message))
  }
}

/** What an archive may hold unpacked. More is no site, or is made to fill a memory. Bytes; files. */
export const mostBytes = 1_500_000_000
export const mostFiles = 200_000

/** A text packs to a thousandth at the most where it says one thing over and over; bytes for each packed one. */
export const mostRatio = 1_100

/** Whether a name in an archive is of a place outside of it. */
export function leadsOut(path: string): boolean {
  return /^[/\\]|^[A-Za-z]:|(?:^|[/\\])\.\.(?:[/\\]|$)|\0/.test(path)
}

/** `dist/` when every path begins with it. What file managers add beside it does not count. */
export function commonDirectory(paths: readonly string[]): string {
  const own = paths.filter((path) => !path.startsWith('__MACOSX/'))
  const slash = own[0]?.indexOf('/') ?? -1
  const top = slash < 0 ? '' : (own[0]?.slice(0, slash + 1) ?? '')
  return own.every((path) => path.startsWith(top)) ? top : ''
}
