import { findNodeAtLocation, type Node } from 'jsonc-parser'
import { jsonTree } from '../model/json.ts'
import { missingValue } from '../model/missing-value.ts'
import type { Edit } from '../model/report.ts'
import { startOfLine } from '../model/text.ts'
import type { Change } from './edit.ts'
import { type Setting, settingOf } from './setting.ts'

/** The change of a JSON file: the member at the place of the edit, or a new one in the object that begins there, else at the top. */
export function changeInJson(source: string, edit: Edit): Change | null {
  const setting = settingOf(edit.write)
  const root = setting && jsonTree(source)
  const value = setting && jsonOf(setting.value)
  if (!setting || !root || value === undefined) return null
  const start = objectAt(root, source, edit, setting)
  for (let depth = setting.path.length; depth >= 0; depth--) {
    const path = [...start, ...setting.path.slice(0, depth)]
    const known = path.length === 0 ? root : findNodeAtLocation(root, path)
    if (!known) continue
    if (depth === setting.path.length)
      return { start: known.offset, end: known.offset + known.length, text: JSON.stringify(value) }
    return known.type === 'object' ? newMember(source, known, setting.path.slice(depth), value) : null
  }
  return null
}

/** A member behind the last one of an object, on a line of its own where they are; nothing else is moved about. */
function newMember(source: string, object: Node, path: readonly string[], value: unknown): Change {
  const [name = '', ...inner] = path
  const written = inner.reduceRight(
    (text, key) => `{ ${JSON.stringify(key)}: ${text} }`,
    JSON.stringify(value),
  )
  const text = `${JSON.stringify(name)}: ${written}`
  const last = object.children?.at(-1)
  if (!last) return { start: object.offset, end: object.offset + object.length, text: `{ ${text} }` }
  const end = last.offset + last.length
  const line = source.slice(source.lastIndexOf('\n', last.offset) + 1, last.offset)
  const isOnLine = /^\s*$/.test(line) && source.slice(object.offset, last.offset).includes('\n')
  return { start: end, end, text: isOnLine ? `,\n${line}${text}` : `, ${text}` }
}

/** The path of the object that begins at a place, or on its line; or that has the setting there. */
function objectAt(
  root: Node,
  source: string,
  { line, column }: Edit,
  { path }: Setting,
): (string | number)[] {
  if (line === null) return []
  const begins = startOfLine(source, line)
  const end = source.indexOf('\n', begins)
  const isThere = ({ offset }: Node): boolean =>
    column === undefined ? offset >= begins && (end < 0 || offset < end) : offset === begins + column - 1
  let found: (string | number)[] | null = null
  const look = (node: Node, at: (string | number)[]): void => {
    if (node.type === 'object' && isThere(node)) found ??= at
    for (const [index, child] of (node.children ?? []).entries()) {
      const [key, value] = node.type === 'object' ? (child.children ?? []) : [null, child]
      const inner = [...at, key ? String(key.value) : index]
      // The place of a member is that of its name.
      if (value && key && (isThere(key) || isThere(value))) {
        if (key.value === path[0]) found ??= at
        else if (value.type === 'object' && column !== undefined) found ??= inner
      }
      if (value) look(value, inner)
    }
  }
  look(root, [])
  return found ?? []
}

function jsonOf(code: string): unknown {
  try {
    return JSON.parse(code.startsWith("'") ? JSON.stringify(code.slice(1, -1)) : code)
  } catch {
    return undefined
  }
}

/** The change of a TOML or YAML file: its key at the top, written anew or replaced. */
export function changeInLines(file: string, source: string, { write }: Edit): Change | null {
  const [, key, value] = /^([\w.-]+)\s*[:=]\s*(\S.*)$/.exec(write) ?? []
  if (key === undefined || value === undefined) return null
  const mark = file.endsWith('.toml') ? '=' : ':'
  const top = file.endsWith('.toml') ? (/^[ \t]*\[/m.exec(source)?.index ?? source.length) : source.length
  const match = new RegExp(`^(${key}[ \\t]*${mark}[ \\t]*)(\\S.*?)([ \\t]+#.*)?$`, 'mi').exec(
    source.slice(0, top),
  )
  if (match) {
    const start = match.index + (match[1] ?? '').length
    return { start, end: start + (match[2] ?? '').length, text: value }
  }
  // A document of YAML may begin with a line of its own.
  const start = /^---[^\n]*\n/.exec(source)?.[0].length ?? 0
  return { start, end: start, text: `${key}${mark === '=' ? ' = ' : ': '}${value}\n` }
}

/** The change of one line: a text in place of another that stands there once. */
export function changeInLine(source: string, { line, write, instead = '' }: Edit): Change | null {
  const text = line === null ? undefined : source.split('\n')[line - 1]
  const at = text?.indexOf(instead) ?? -1
  if (line === null || text === undefined || at < 0 || text.indexOf(instead, at + 1) >= 0) return null
  const start = startOfLine(source, line) + at
  return { start, end: start + instead.length, text: write }
}

/** The change of a text at its exact place, in a file of any kind. */
export function changeAt(source: string, { line, column, write, instead = '' }: Edit): Change | null {
  if (line === null || column === undefined) return null
  const start = startOfLine(source, line) + column - 1
  const end = start + instead.length
  // A longer address that only begins alike is another one.
  if (source.slice(start, end) !== instead) return null
  if (!/["'`>]$/.test(instead) && /[\w.-]/.test(source.charAt(end))) return null
  // A path of the own origin begins its text; the same words may stand inside another address.
  if (instead.startsWith('/') && !/["'`(=\s]/.test(source.charAt(start - 1))) return null
  return { start, end, text: write }
}

/** The change of the address that a page's other addresses start from. */
export function changeInPage(source: string, { write }: Edit): Change | null {
  const base = /<base\s[^>]*?\bhref\s*=\s*(["'])(.*?)\1/i
  const [value] = [base.exec(write)?.[2]]
  const match = base.exec(source)
  if (!match || value === undefined) return null
  const end = match.index + match[0].length - 1
  return { start: end - (match[2] ?? '').length, end, text: value }
}

/** One more command behind a script of the manifest. */
export function changeBehind(source: string, { line, write, after = '' }: Edit): Change | null {
  if (line === null) return null
  const start = startOfLine(source, line)
  const newline = source.indexOf('\n', start)
  const text = source.slice(start, newline < 0 ? undefined : newline)
  const script = JSON.stringify(after)
  const at = text.lastIndexOf(script)
  const end = start + at + script.length - 1
  return at < 0 ? null : { start: end, end, text: ` ${write}` }
}

/** How an entry of a list of variables is written, by the form of one that is there. */
const entries: readonly (readonly [RegExp, (name: string, word: string) => string])[] = [
  [/^[A-Z]\w*[ \t]*:/, (name) => `${name}: '${missingValue}'`],
  [/^-[ \t]+[A-Z]\w*=/, (name) => `- ${name}=${missingValue}`],
  // An argument may stand before the first image, where nothing else may.
  [/^(?:ENV|ARG)[ \t]+[A-Z]\w*=/, (name, word) => `${word} ${name}="${missingValue}"`],
  [/^[A-Z]\w*[ \t]*=/, (name) => `${name} = "${missingValue}"`],
  [/^"[A-Z]\w*"[ \t]*:/, (name) => `"${name}": "${missingValue}",`],
]

/** The change of a file that gives variables to a build: one more entry before another, with a value that a person must give. */
export function changeBeside(source: string, { line, needs = '' }: Edit): Change | null {
  const text = line === null ? undefined : source.split('\n')[line - 1]
  if (line === null || text === undefined || !/^\w+$/.test(needs)) return null
  const entry = text.trimStart()
  const write = entries.find(([form]) => form.test(entry))?.[1]
  if (!write) return null
  const start = startOfLine(source, line)
  return {
    start,
    end: start,
    text: `${text.slice(0, text.length - entry.length)}${write(needs, entry.split(/\s/)[0] ?? '')}\n`,
  }
}

/** The change of a script in the manifest: an option of a command, written anew or replaced. */
export function changeInCommand(source: string, { line, write, after }: Edit): Change | null {
  const [, option = ''] = /^(--[\w-]+)/.exec(write) ?? []
  const lines = source.split('\n')
  const text = line === null ? undefined : lines[line - 1]
  if (option === '' || line === null || text === undefined) return null
  const begins = startOfLine(source, line)
  const known = new RegExp(`${option}(?:=|\\s+)[^\\s"&|;]+`).exec(text)
  if (known) return { start: begins + known.index, end: begins + known.index + known[0].length, text: write }
  const at = after === undefined ? -1 : text.indexOf(after)
  if (after === undefined || at < 0) return null
  const end = begins + at + after.length
  return { start: end, end, text: ` ${write}` }
}

/**
 * The change of an environment file: a line for a variable, whose value is empty until somebody gives it. A value that is there is
 * nobody's to show: it becomes a comment below the new line.
 */
export function changeInEnvironment(source: string, { needs = '' }: Edit): Change | null {
  if (!/^\w+$/.test(needs)) return null
  const lines = [
    ...source.matchAll(new RegExp(`^([ \\t]*(?:export[ \\t]+)?${needs}[ \\t]*=)[ \\t]*(.*)$`, 'gm')),
  ]
  const last = lines.at(-1)
  if (last) {
    const [, name = '', value = ''] = last
    return {
      start: last.index,
      end: last.index + name.length,
      text: value === '' ? name : `${name}\n# before: `,
    }
  }
  const text = `${needs}=\n`
  const { length: end } = source
  return { start: end, end, text: end === 0 || source.endsWith('\n') ? text : `\n${text}` }
}
