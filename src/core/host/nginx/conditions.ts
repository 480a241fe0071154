import type { DiskKind } from '../disk.ts'
import { serverPattern } from '../server-pattern.ts'
import type { Variables } from './variables.ts'

/** Whether the condition of an `if` holds; null where nobody knows. A pattern that fits leaves its groups. */
export function holds(
  args: readonly string[],
  variables: Variables,
  kindOf: (path: string) => DiskKind,
): boolean | null {
  const words = [...args]
  words[0] = (words[0] ?? '').replace(/^\(/, '')
  words[words.length - 1] = (words.at(-1) ?? '').replace(/\)$/, '')
  const [left = '', sign, right = ''] = words.filter((word) => word !== '')
  if (/^!?-[fdex]$/.test(left)) return isOnDisk(left, variables.expand(sign ?? ''), kindOf)
  const value = variables.expand(left)
  if (value === null) return null
  if (sign === undefined) return value !== '' && value !== '0'
  if (sign === '=' || sign === '!=') {
    const other = variables.expand(words.length < 3 ? '' : right)
    return other === null ? null : (value === other) === (sign === '=')
  }
  return fits(sign, right, value, variables)
}

function isOnDisk(test: string, path: string | null, kindOf: (path: string) => DiskKind): boolean | null {
  if (path === null) return null
  const kind = kindOf(path)
  const is = test.endsWith('f') ? kind === 'file' : test.endsWith('d') ? kind === 'directory' : kind !== null
  return is !== test.startsWith('!')
}

function fits(sign: string, source: string, value: string, variables: Variables): boolean | null {
  const pattern = serverPattern(source, sign.endsWith('*'))
  if (!pattern) return null
  const match = pattern.exec(value)
  if (match) variables.matched(match)
  return (match !== null) !== sign.startsWith('!')
}
