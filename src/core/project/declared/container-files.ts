import { climbs, type Folder, joinPath, joinUp, listIfThere } from '../../model/folder.ts'
import type { Place } from '../../model/reading.ts'
import { readText } from '../../model/text.ts'

/** A file that a container is built from, by its instructions in order. */
export interface ContainerFile {
  readonly file: string
  readonly instructions: readonly Instruction[]
}

interface Instruction {
  /** In capitals: `COPY`. */
  readonly word: string
  readonly rest: string
  readonly at: Place
}

const containerFile = /^(?:[\w-]+\.)?(?:Dockerfile|Containerfile)(?:\.[\w-]+)?$/

/** The container files in a directory itself. Instructions over several lines are one. */
export async function readContainerFiles(folder: Folder): Promise<ContainerFile[]> {
  const found: ContainerFile[] = []
  for (const { name: file, kind } of (await listIfThere(folder, '')) ?? []) {
    const text = kind === 'file' && containerFile.test(file) ? await readText(folder, joinPath(file)) : null
    if (text !== null) found.push({ file, instructions: instructionsIn(file, text) })
  }
  return found
}

function instructionsIn(file: string, text: string): Instruction[] {
  const found: Instruction[] = []
  let open = false
  for (const [index, line] of text.split(/\r?\n/).entries()) {
    if (/^\s*#/.test(line)) continue
    const part = line.replace(/\\\s*$/, ' ')
    const last = found.at(-1)
    if (open && last) found[found.length - 1] = { ...last, rest: `${last.rest} ${part.trim()}` }
    else {
      const [, word = '', rest = ''] = /^\s*([A-Za-z]+)\s+(\S.*)?$/.exec(part) ?? []
      if (word !== '')
        found.push({ word: word.toUpperCase(), rest: rest.trim(), at: { file, line: index + 1, column: 1 } })
    }
    open = /\\\s*$/.test(line) && (open || found.length > 0)
  }
  return found
}

/** A variable of a container's build; the value is null where only the name is given. */
export interface ContainerVariable {
  readonly name: string
  readonly value: string | null
  readonly at: Place
}

/** `ARG` and `ENV`: `A=1 B="2 3"`, `A`, or the older `A value`. */
export function containerVariables({ instructions }: ContainerFile): ContainerVariable[] {
  return instructions.flatMap(({ word, rest, at }): ContainerVariable[] => {
    if (word !== 'ARG' && word !== 'ENV') return []
    const assigned = [...rest.matchAll(/(?<![A-Z0-9_])([A-Z][A-Z0-9_]*)=(?:"([^"]*)"|'([^']*)'|(\S*))/g)]
    if (assigned.length > 0)
      return assigned.map(([, name = '', double, single, plain]) => ({
        name,
        value: double ?? single ?? plain ?? '',
        at,
      }))
    const [, name, value] = /^([A-Z][A-Z0-9_]*)(?:\s+(\S.*)?)?$/.exec(rest) ?? []
    return name === undefined ? [] : [{ name, value: value ?? null, at }]
  })
}

interface Stage {
  readonly name: string
  readonly image: string
  directory: string
}

/** Where servers keep what they send: `/usr/share/nginx/html`, `/var/www`, `/usr/local/apache2/htdocs`, `/srv`. */
const served =
  /^\/(?!etc\/)(?:.*\/)?(?:html|htdocs|www|wwwroot|public_html|webroot|srv|static|public|site)(?:\/|$)/
/** A container that runs a program of its own is no server of files. */
const runtime = /(?:^|\/)(?:node|bun|deno|python|ruby|php|golang|openjdk|eclipse-temurin|dotnet)\b/

/** What a container copies: the paths as the repository names them, and where they go. */
export interface ContainerCopy {
  readonly from: string
  readonly to: string
  readonly place: Place
}

/** The directories that a container of files copies from a build to where its server looks: as the repository names them. */
export function containerCopies(container: ContainerFile): { value: string; place: Place }[] {
  return allCopies(container).flatMap(({ from, to, image, place }) =>
    // A file is a configuration.
    runtime.test(image) || !served.test(to) || /\.[a-z]+$/i.test(from) ? [] : [{ value: from, place }],
  )
}

/** All that the last stage of a container is given: only that one runs. */
export function allCopies({ instructions }: ContainerFile): (ContainerCopy & { readonly image: string })[] {
  const stages: Stage[] = []
  const found: (ContainerCopy & { image: string })[] = []
  for (const { word, rest, at: place } of instructions) {
    const stage = stages.at(-1)
    if (word === 'FROM') {
      stages.push(stageOf(rest, stages))
      found.length = 0
    } else if (word === 'WORKDIR' && stage) stage.directory = absolute(stage.directory, rest)
    else if ((word === 'COPY' || word === 'ADD') && stage)
      for (const copy of copied(rest, stage, stages)) found.push({ ...copy, place, image: stage.image })
  }
  return found
}

function stageOf(rest: string, stages: readonly Stage[]): Stage {
  const [, image = '', name = ''] = /^(?:--\S+\s+)*(\S+)(?:\s+as\s+(\S+))?/i.exec(rest) ?? []
  const base = stages.find((each) => each.name !== '' && each.name === image)
  return { name, image: base?.image ?? image, directory: base?.directory ?? '/' }
}

function copied(rest: string, stage: Stage, stages: readonly Stage[]): { from: string; to: string }[] {
  const [, options = '', list = ''] = /^((?:--\S+\s+)*)((?!--)\S.*)?$/s.exec(rest) ?? []
  const isList = list.startsWith('[')
  const paths = isList ? [...list.matchAll(/"([^"]*)"/g)].map(([, path = '']) => path) : list.split(/\s+/)
  const target = absolute(stage.directory, paths.at(-1) ?? '')
  if (paths.length < 2) return []
  const from = /--from=(\S+)/.exec(options)?.[1]
  const origin =
    from === undefined ? null : (stages.find(({ name }) => name === from) ?? stages[Number(from)] ?? null)
  if (from !== undefined && !origin) return []
  return paths.slice(0, -1).flatMap((path) => {
    const plain = path.replace(/\/(?:\*|\.)?$/, '')
    const inside = origin ? below(origin.directory, absolute('/', plain)) : joinUp(plain)
    // A variable or a pattern is known to nobody here.
    return !inside || climbs(inside) || /[$*?{}]/.test(inside) ? [] : [{ from: inside, to: target }]
  })
}

/** A path of a stage as the repository has it, which was copied to the stage's working directory; null elsewhere. */
function below(directory: string, path: string): string | null {
  const prefix = directory === '/' ? '/' : `${directory}/`
  return path.startsWith(prefix) ? path.slice(prefix.length) : null
}

function absolute(directory: string, path: string): string {
  const whole = path.startsWith('/') ? path : `${directory}/${path}`
  return `/${joinPath(whole)}`
}
