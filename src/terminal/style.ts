import { existsSync } from 'node:fs'
import { resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import pc from 'picocolors'
import { printable } from '../core/model/text.ts'

/** How text is drawn: colours, or none, and the columns there are. */
export interface Style {
  readonly width: number
  readonly colors: ReturnType<typeof pc.createColors>
  /** Makes a text lead to a line of the first of these files that is there; else the text as it is. */
  readonly link: (text: string, at: LinePlace, ...files: string[]) => string
}

/** A line, and where on it; null where the file as a whole is meant. */
export interface LinePlace {
  readonly line?: number | null
  readonly column?: number | null
}

const narrowest = 60
const widest = 140
const usual = 100

/** What the environment says of how text is drawn. */
type Environment = Readonly<Record<string, string | undefined>>

/**
 * The style for a stream: its width, and colour only where a person sees it and wants it. A pipe has the width that COLUMNS says, and
 * colours where FORCE_COLOR says so.
 */
export function styleFor(
  stream: { isTTY?: boolean; columns?: number },
  color: boolean,
  environment: Environment = process.env,
): Style {
  const said = /^\d{1,4}$/.test(environment.COLUMNS ?? '') ? Number(environment.COLUMNS) : usual
  const width = Math.min(widest, Math.max(narrowest, stream.columns ?? said))
  const isForced = !['', '0', 'false'].includes(environment.FORCE_COLOR ?? '')
  const isSeen = stream.isTTY === true
  const drawn = color && (isSeen ? pc.isColorSupported : isForced)
  const template = environment.WARDOSCOPE_LINK
  return {
    width,
    colors: pc.createColors(drawn),
    link: drawn && isSeen ? (text, at, ...files) => linkTo(text, at, files, template) : (text) => text,
  }
}

/**
 * A link as terminals open it (OSC 8); those that know none show the text. A template, as in `editor://open{file}:{line}:{column}`, opens
 * the line; without one the file is opened.
 */
function linkTo(
  text: string,
  { line, column }: LinePlace,
  files: readonly string[],
  template: string | undefined,
): string {
  const there = files.find((file) => existsSync(file))
  if (there === undefined) return text
  const { href, pathname } = pathToFileURL(resolve(there))
  const filled = template
    ?.replaceAll('{file}', pathname)
    .replaceAll('{line}', String(line ?? 1))
    .replaceAll('{column}', String(column ?? 1))
  const target = filled !== undefined && URL.canParse(filled) ? new URL(filled).href : href
  return `\u001b]8;;${target}\u001b\\${text}\u001b]8;;\u001b\\`
}

/** Breaks text at blanks so that no line is longer than `width`; a longer word stands alone. */
export function wrap(text: string, width: number): string[] {
  const lines: string[] = []
  let line = ''
  for (const word of printable(text).split(' ')) {
    if (line !== '' && line.length + 1 + word.length > width) {
      lines.push(line)
      line = word
    } else line = line === '' ? word : `${line} ${word}`
  }
  return [...lines, line]
}

/** Cuts a text to `width` with an ellipsis. */
export function cut(text: string, width: number): string {
  const shown = printable(text)
  return shown.length <= width ? shown : `${shown.slice(0, Math.max(0, width - 1))}…`
}

/** Cuts a path or URL in its middle, where it says least. */
export function cutMiddle(text: string, width: number): string {
  const shown = printable(text)
  if (shown.length <= width) return shown
  const head = Math.ceil((width - 1) / 2)
  return `${shown.slice(0, head)}…${shown.slice(shown.length - (width - 1 - head))}`
}
