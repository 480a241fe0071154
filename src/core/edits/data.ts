import { findNodeAtLocation, modify, type Node, parseTree } from 'jsonc-parser'
import type { Edit } from '../model/report.ts'
import type { Change } from './edit.ts'
import { type Setting, settingOf } from './setting.ts'

/** The change of a JSON file: the member at the line of the edit, or a new one in the object that begins there, else at the top. */
export function changeInJson(source: string, { line, write }: Edit): Change | null {
  const setting = settingOf(write)
  const root = setting && parseTree(source)
  if (!setting || !root) return null
  const path = [...(line === null ? [] : objectAtLine(root, source, line, setting)), ...setting.path]
  const value = jsonOf(setting.value)
  if (value === undefined) return null
  const known = findNodeAtLocation(root, path)
  if (known) return { start: known.offset, end: known.offset + known.length, text: JSON.stringify(value) }
  const indent = /\n([ \t]+)/.exec(source)?.[1] ?? '  '
  const [edit, ...more] = modify(source, path, value, {
    formattingOptions: {
      insertSpaces: !indent.startsWith('\t'),
      tabSize: indent.length,
      eol: source.includes('\r\n') ? '\r\n' : '\n',
    },
  })
  return edit && more.length === 0
    ? { start: edit.offset, end: edit.offset + edit.length, text: edit.content }
    : null
}

/** The path of the object that has the setting on that line, or that begins on it. */
function objectAtLine(root: Node, source: string, line: number, { path }: Setting): (string | number)[] {
  const lineOf = (offset: number): number => source.slice(0, offset).split('\n').length
  let found: (string | number)[] = []
  const look = (node: Node, at: (string | number)[]): void => {
    if (node.type === 'object' && lineOf(node.offset) === line) found = at
    for (const [index, child] of (node.children ?? []).entries()) {
      const [key, value] = node.type === 'object' ? (child.children ?? []) : [null, child]
      if (key && key.value === path[0] && lineOf(key.offset) === line) found = at
      if (value) look(value, [...at, key ? String(key.value) : index])
    }
  }
  look(root, [])
  return found
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
  const top = file.endsWith('.toml') ? (/^\s*\[/m.exec(source)?.index ?? source.length) : source.length
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
  const lines = source.split('\n')
  const text = line === null ? undefined : lines[line - 1]
  const at = text?.indexOf(instead) ?? -1
  if (line === null || text === undefined || at < 0 || text.indexOf(instead, at + 1) >= 0) return null
  const start = lines.slice(0, line - 1).reduce((sum, each) => sum + each.length + 1, 0) + at
  return { start, end: start + instead.length, text: write }
}

/** The change of a script in the manifest: an option of a command, written anew or replaced. */
export function changeInCommand(source: string, { line, write, after }: Edit): Change | null {
  const [, option = ''] = /^(--[\w-]+)/.exec(write) ?? []
  const lines = source.split('\n')
  const text = line === null ? undefined : lines[line - 1]
  if (option === '' || line === null || text === undefined) return null
  const begins = lines.slice(0, line - 1).join('\n').length + (line > 1 ? 1 : 0)
  const known = new RegExp(`${option}(?:=|\\s+)[^\\s"&|;]+`).exec(text)
  if (known) return { start: begins + known.index, end: begins + known.index + known[0].length, text: write }
  const at = after === undefined ? -1 : text.indexOf(after)
  if (after === undefined || at < 0) return null
  const end = begins + at + after.length
  return { start: end, end, text: ` ${write}` }
}
