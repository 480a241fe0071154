import { climbs, extensionOf, type Folder, joinPath, joinUp, listIfThere } from '../../model/folder.ts'
import type { Place } from '../../model/reading.ts'
import { readText } from '../../model/text.ts'
import type { Folded } from '../../syntax/value.ts'
import { commandsOf } from '../shell-command.ts'
import { visitData } from './visit-data.ts'

/** A directory that a command copies to where it is served. */
export interface ShippingCommand {
  readonly directory: string
  readonly place: Place
}

/** Keys whose text, or list of texts, a shell runs. */
const shellKey =
  /^(?:run|script|scripts|command|commands|cmd|sh|bash|inline[-_]?script|before[-_]script|after[-_]script)$/i
const workingDirectory = /^(?:working[-_]?directory|cwd|workdir|dir)$/i

/** The commands in pipeline files. */
export function commandsInData(value: Folded): ShippingCommand[] {
  const found: ShippingCommand[] = []
  visitData(value, (item, { keys }) => {
    if (item.kind === 'object') found.push(...stepsIn(item))
    return keys.length < 20
  })
  return found
}

/** What an object gives a shell to run, in the directory that stands beside it. */
function stepsIn({ members }: Extract<Folded, { kind: 'object' }>): ShippingCommand[] {
  const at = [...members].find(([key]) => workingDirectory.test(key))?.[1]
  const directory = at?.kind === 'value' && typeof at.value === 'string' ? at.value : ''
  return [...members].flatMap(([key, item]) => {
    if (!shellKey.test(key)) return []
    const texts = item.kind === 'list' ? item.items : [item]
    return texts.flatMap((text) =>
      text.kind === 'value' && typeof text.value === 'string' ? shipped(text.value, directory, text.at) : [],
    )
  })
}

/** Shell scripts in a directory itself and in its `scripts` and `bin`. */
export async function commandsInScripts(folder: Folder): Promise<ShippingCommand[]> {
  const found: ShippingCommand[] = []
  for (const directory of ['', 'scripts', 'bin', 'deploy']) {
    for (const { name, kind } of (await listIfThere(folder, directory)) ?? []) {
      const file = joinPath(directory, name)
      if (kind !== 'file' || !['sh', 'bash'].includes(extensionOf(name))) continue
      const lines = ((await readText(folder, file)) ?? '').split(/\r?\n/)
      for (const [index, line] of lines.entries())
        found.push(...shipped(line, '', { file, line: index + 1, column: 1 }))
    }
  }
  return found
}

/** `name@machine:path`, `scheme://…`, and the directories that servers send from. */
const elsewhere =
  /^(?:[\w.-]+@)?[\w.-]+:(?!\\)|^[a-z][\w+.-]*:\/\/|^\/(?:var\/www|usr\/share|srv|www)(?:\/|$)/
const copiers = /^(?:cp|rsync|scp|mv)$/

/** The directories that the commands of a text send away, as seen from the repository. */
export function shipped(text: string, directory: string, place: Place): ShippingCommand[] {
  const found: ShippingCommand[] = []
  let here = directory
  for (const words of commandsOf(text)) {
    const [program = '', ...rest] = words
    if (program === 'cd' && rest[0] && !/[$~]/.test(rest[0])) here = joinUp(here, rest[0])
    // A copier, or a tool with a word for it: `… sync dist store://site`.
    const isCopy =
      copiers.test(program) || rest.includes('sync') || rest.includes('copy') || rest.includes('cp')
    const paths = rest.filter((word) => !word.startsWith('-'))
    if (!isCopy || !elsewhere.test(paths.at(-1) ?? '')) continue
    for (const path of paths.slice(0, -1)) {
      const source = joinUp(here, path.replace(/\/(?:\*{1,2}|\.)?$/, ''))
      if (isBuildDirectory(source)) found.push({ directory: source, place })
    }
  }
  return found
}

/** Names that builds write to. A command copies much else, so only such a name says that a build is meant. */
const usual = /(?:^|\/)(?:dist|build|out|output|public|_site|site|www|docs|browser|htdocs|static)$/i

/** Whether a path is named as builds name what they write. */
export function isBuildDirectory(path: string): boolean {
  return usual.test(path) && !climbs(path) && !/[$*?{}\s:]/.test(path)
}
