import { existsSync } from 'node:fs'
import { resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import pc from 'picocolors'
import { printable } from '../core/model/text.ts'

/** How text is drawn: colours, or none, and the columns there are. */
export interface Style {
  readonly width: number
  readonly colors: ReturnType<typeof pc.createColors>
  /** Makes a text lead to the first of these files that is there; else the text as it is. */
  readonly link: (text: string, ...files: string[]) => string
}

const narrowest = 60
const widest = 140
const usual = 100

/** The style for a stream: its width, and colour only where a person sees it and wants it. */
export function styleFor(stream: { isTTY?: boolean; columns?: number }, color: boolean): Style {
  const width = Math.min(widest, Math.max(narrowest, stream.columns ?? usual))
  const drawn = color && stream.isTTY === true && pc.isColorSupported
  return { width, colors: pc.createColors(drawn), link: drawn ? linkTo : (text) => text }
}

/** A link as terminals open it (OSC 8); those that know none show the text. */
function linkTo(text: string, ...files: string[]): string {
  const there = files.find((file) => existsSync(file))
  if (there === undefined) return text
  const { href } = pathToFileURL(resolve(there))
  return `\u001b]8;;${href}\u001b\\${text}\u001b]8;;\u001b\\`
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
