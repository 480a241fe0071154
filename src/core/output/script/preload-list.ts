import type { Mentions } from '../words.ts'
import { publicPathIn } from './chunk-runtime.ts'
import { codeAfter, codeBefore, type Literal, type Literals } from './literal.ts'

/** The array of a preload list that is being read: where its bracket opened. */
export interface PreloadList {
  readonly end: number
}

/** Whether a script has such lists at all. */
export function holdsPreloadLists(mentions: Mentions): boolean {
  return mentions.has('__vite__mapDeps')
}

/**
 * Vite writes the files to preload before a lazy chunk as one array, `m.f=["assets/a.js","assets/b.css"]`; the
 * base path is put before each when the page runs. Checked against Vite 8.
 */
export function continueList(code: string, literal: Literal, list: PreloadList | null): PreloadList | null {
  if (list) return literal.start < list.end ? list : null
  if (!/\.f\s*=\s*\[$/.test(codeBefore(code, literal.start - 1, 16))) return null
  if (!code.slice(Math.max(0, literal.start - 200), literal.start).includes('__vite__mapDeps')) return null
  const end = code.indexOf(']', literal.end)
  return { end: end < 0 ? code.length : end }
}

const baseHelper = /(?:return|=>)\s*(?:\(\s*)?$/

/** What a bundler's helpers are found by. */
export const preloadWords = ['.u=', 'modulepreload', '__vite__mapDeps']

/** The base path that a bundler's own helper puts before chunk names: ``return`/crossings/`+e``. Checked against Vite 8. */
export function bundleBaseOf(code: string, literals: Literals, mentions: Mentions): string | null {
  if (mentions.has('.u=')) {
    const stated = publicPathIn(code)
    if (stated !== null) return stated
  }
  if (!mentions.has('modulepreload')) return null
  for (const literal of literals.telling) {
    const { value, start, end, first, last } = literal
    if (!first || !last || !/^(?:\/|https?:\/\/)(?:.*\/)?$/.test(value)) continue
    if (
      baseHelper.test(codeBefore(code, start - 1, 12)) &&
      /^\+\s*\w+\s*[};)]/.test(codeAfter(code, end + 1))
    ) {
      return value
    }
  }
  return null
}
