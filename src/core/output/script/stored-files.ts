import type { Reference } from '../../model/reference.ts'
import type { Literal } from './literal.ts'

/** `cache.addAll([…])`, and the same with a list that has a name. */
const storing = /\.addAll\(\s*(?:(\[)|([A-Za-z_$][\w$]*)\s*\))/g

/** What such lists are found by. */
export const storedWord = '.addAll('

/** A worker has one or two. */
const mostLists = 20

/** A longer list is data; UTF-16 units. */
const longestList = 20_000

/**
 * Where a service worker lists what it stores when it is installed: one file that does not arrive ends the installation
 * (Service Workers, W3C, "Cache.addAll": an answer that is no success rejects). Each list as the bounds of its text.
 */
export function storedLists(code: string): [start: number, end: number][] {
  if (!code.includes('caches')) return []
  const found: [number, number][] = []
  for (const { 0: whole, 1: bracket, 2: name, index } of [...code.matchAll(storing)].slice(0, mostLists)) {
    const start = bracket ? index + whole.length : name ? listNamed(code, name) : -1
    const end = start < 0 ? -1 : code.indexOf(']', start)
    // What is made of the list is stored, not the list: `[…].map(f)`.
    if (end < 0 || end - start > longestList || /^\s{0,9}\./.test(code.slice(end + 1, end + 12))) continue
    found.push([start, end])
  }
  return found
}

/** Where the only list of that name begins; -1 where there is none, or which one is meant can not be told. */
function listNamed(code: string, name: string): number {
  const marks = new RegExp(`(?<![\\w$.])${name.replace(/\$/g, '\\$')}\\s{0,9}=\\s{0,9}\\[`, 'g')
  const [first, ...others] = [...code.matchAll(marks)]
  return first && others.length === 0 ? first.index + first[0].length : -1
}

/** A file by its name: what has no ending is a route, and who answers it is the host's matter. */
const file = /^(?!https?:|\/\/)[^\s?#]*\.[a-z][\da-z]{1,11}(?:[?#]\S*)?$/i

/** What a literal in such a list requests. */
export function storedFile({ value, start, end }: Literal): Reference[] {
  if (!file.test(value)) return []
  return [{ kind: 'stored', raw: value, against: 'file', later: true, offset: start, length: end - start }]
}

/** Whether a literal stands in one of the lists. */
export function isStored(lists: readonly (readonly [number, number])[], { start }: Literal): boolean {
  return lists.some(([from, to]) => from <= start && start < to)
}
