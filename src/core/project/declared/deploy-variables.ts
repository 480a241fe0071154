import { type Folder, joinPath, listIfThere } from '../../model/folder.ts'
import type { Place } from '../../model/reading.ts'
import { readText } from '../../model/text.ts'
import type { Folded } from '../../syntax/value.ts'
import type { EnvironmentFile } from '../environment-files.ts'
import type { DeployFile } from './deploy-files.ts'
import { visitData } from './visit-data.ts'

/** Keys whose object or list gives variables to what is run. */
const mapKey = /^(?:env|environment|environments?[-_]variables|variables|vars|build[-_]?(?:env|args)|args)$/i

/** A variable as people name one, and one with its value in a single text. */
const variable = /^[A-Z][A-Z0-9_]*$/
const assignment = /^([A-Z][A-Z0-9_]*)=/

/** Names of variables that pipeline, deploy and container files hand to a build. Their values are left where they are. */
export async function deployVariables(
  folder: Folder,
  files: readonly DeployFile[],
): Promise<EnvironmentFile[]> {
  const found: EnvironmentFile[] = []
  for (const { file, value } of files) {
    const names = variablesIn(value)
    if (names.size > 0) found.push({ file, names })
  }
  return [...found, ...(await containerVariables(folder))]
}

function variablesIn(value: Folded): Map<string, Place> {
  const names = new Map<string, Place>()
  visitData(value, (item, { keys, isItem }) => {
    const key = keys.at(-1) ?? ''
    const found = isItem && mapKey.test(key) ? nameOf(item) : null
    if (found) remember(found.text, found.at, names)
    const isVariable = !isItem && mapKey.test(keys.at(-2) ?? '') && variable.test(key)
    if (isVariable) remember(key, item.at, names)
    return !found && !isVariable
  })
  return names
}

/** An item of a list: `NAME=value`, `NAME`, or an object that says the name under `name` or `key`. */
function nameOf(item: Folded): { text: string; at: Place } | null {
  const said = item.kind === 'object' ? (item.members.get('name') ?? item.members.get('key')) : item
  if (said?.kind !== 'value' || typeof said.value !== 'string') return null
  const text = assignment.exec(said.value)?.[1] ?? said.value
  return variable.test(text) ? { text, at: said.at } : null
}

function remember(name: string, at: Place, names: Map<string, Place>): void {
  if (!names.has(name)) names.set(name, at)
}

const containerFile = /^(?:[\w-]+\.)?(?:Dockerfile|Containerfile)(?:\.[\w-]+)?$/
const instruction = /^[ \t]*(?:ARG|ENV)[ \t]+(.*)$/gim

/** `ARG` and `ENV` of the files that containers are built from. */
async function containerVariables(folder: Folder): Promise<EnvironmentFile[]> {
  const found: EnvironmentFile[] = []
  for (const { name: file, kind } of (await listIfThere(folder, '')) ?? []) {
    const text = kind === 'file' && containerFile.test(file) ? await readText(folder, joinPath(file)) : null
    if (text === null) continue
    const names = new Map<string, Place>()
    for (const match of text.matchAll(instruction)) {
      const at = { file, line: text.slice(0, match.index).split('\n').length, column: 1 }
      for (const word of wordsOf(match[1] ?? '')) remember(word, at, names)
    }
    if (names.size > 0) found.push({ file, names })
  }
  return found
}

/** The names of one instruction: `A=1 B="2 3"`, `A`, or the older `A value`. */
function wordsOf(rest: string): string[] {
  const assigned = [...rest.matchAll(/([A-Z][A-Z0-9_]*)=(?:"[^"]*"|'[^']*'|\S*)/g)].map(
    ([, name]) => name ?? '',
  )
  const first = /^[A-Z][A-Z0-9_]*(?=\s|$)/.exec(rest)?.[0]
  return assigned.length > 0 ? assigned : first ? [first] : []
}
