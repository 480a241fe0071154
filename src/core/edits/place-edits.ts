import type { Edit } from '../model/report.ts'
import {
  changeAt,
  changeBehind,
  changeBeside,
  changeInCommand,
  changeInEnvironment,
  changeInJson,
  changeInLine,
  changeInLines,
  changeInPage,
} from './data.ts'
import { type Change, isPlaced, placed } from './edit.ts'
import { changeInScript, changeOfUrl } from './script.ts'

/**
 * Gives edits their exact places, as far as the syntax of their files tells them: the range, what stands there and what is to
 * stand there. The others stay as they are, for a person.
 * @param read the text of a file of the project; null when it is not there
 */
export async function placeEdits(
  edits: readonly Edit[],
  read: (file: string) => Promise<string | null>,
): Promise<Edit[]> {
  const found: Edit[] = []
  for (const edit of edits) {
    const source = isPlaced(edit) || edit.file === '' ? null : await read(edit.file)
    const change = isPlaced(edit) || edit.file === '' ? null : changeOf(edit, source)
    found.push(change ? placed(edit, source ?? '', change) : edit)
  }
  return found
}

function changeOf(edit: Edit, source: string | null): Change | null {
  const { file, write } = edit
  // What a file holds does not matter where it is moved as it is.
  if (edit.moveTo !== undefined) return { start: 0, end: 0, text: '' }
  if (source === null) return edit.whole ? { start: 0, end: 0, text: edit.whole } : null
  if (edit.beside) return changeBeside(source, edit)
  if (edit.needs !== undefined)
    return edit.instead ? changeAt(source, edit) : changeInEnvironment(source, edit)
  // The same path with another beginning is the same kind of text.
  const isPath = /^\/[^`$]*$/.test(write) && edit.instead?.startsWith('/') === true
  const isLetters = write.toLowerCase() === edit.instead?.toLowerCase()
  const isSecured = write === edit.instead?.replace(/^http:/, 'https:')
  const isCode = write.startsWith('{')
  // A read of the base, with the beginning of what is put behind it.
  const isJoined = /^[\w$.%<= ]{1,200}(?:[}>%]|\s{0,3}\+\s{0,3}["'`])\//.test(edit.instead ?? '')
  // A call gives way to the read that it stands for.
  const isRead = /^\(?process\.env\.\w/.test(write) && edit.instead?.endsWith(')') === true
  // What a tag says more, or says anew.
  const isAttribute = write.endsWith(' type="module"')
  // Markup, or a text with its quotes.
  const isMarkup = /^(?:[<"'`]|[\w-]+=["'])/.test(edit.instead ?? '')
  const isExact = isMarkup || isAttribute || isPath || isLetters || isSecured || isCode || isJoined || isRead
  if (edit.instead && edit.column !== undefined && isExact) return changeAt(source, edit)
  if (edit.instead)
    return edit.column === undefined ? changeInLine(source, edit) : changeOfUrl(file, source, edit)
  if (write.startsWith('&& ')) return changeBehind(source, edit)
  if (write.startsWith('--')) return changeInCommand(source, edit)
  if (/\.html?$/.test(file)) return changeInPage(source, edit)
  if (/\.(?:json|jsonc|json5)$/.test(file)) return changeInJson(source, edit)
  if (/\.(?:toml|ya?ml)$/.test(file)) return changeInLines(file, source, edit)
  return /\.[cm]?[jt]sx?$/.test(file) ? changeInScript(file, source, edit) : null
}
