import { type Folder, joinPath, listIfThere, nameOf } from '../../model/folder.ts'
import type { Place } from '../../model/reading.ts'
import { readText } from '../../model/text.ts'
import { allCopies, readContainerFiles } from './container-files.ts'

/** A server's configuration in a project. */
export interface ServerFile {
  readonly file: string
  readonly text: string
  /** Where the container that copies it puts the build, and in which instruction; null when none does. */
  readonly mount: { readonly directory: string; readonly place: Place } | null
  /** Whether a container copies it: else it is known by its name alone. */
  readonly isCopied: boolean
}

/** Where projects keep it. */
const directories = [
  ...['', 'nginx', '.nginx', 'docker', '.docker', 'docker/nginx', 'deploy', 'deployment', 'deploy/nginx'],
  ...['config', 'conf', 'config/nginx', 'server', 'infra', 'etc', 'etc/nginx'],
]
const named =
  /^(?:[\w.-]*nginx[\w.-]*\.(?:conf|template|tmpl|tpl)|default\.conf)(?:\.(?:template|tmpl|tpl|conf))?$/i
/** Of machines that no visitor comes to. */
const ofDevelopment =
  /(?:^|[.\-_/])(?:dev|development|local|test|testing|e2e|ci|example|sample)(?:[.\-_/]|$)/i

/**
 * The configuration of the server that the project is published with: the one that a container of it copies, else the only one that is named as such.
 * Null where none is there, or several are.
 */
export async function serverFileIn(project: Folder, published: string | null): Promise<ServerFile | null> {
  const copied = await copiedFile(project, published)
  if (copied) return copied
  const found: string[] = []
  for (const directory of directories)
    for (const { name, kind } of (await listIfThere(project, directory)) ?? [])
      if (kind === 'file' && named.test(name)) found.push(joinPath(directory, name))
  const live = found.filter((file) => !ofDevelopment.test(file))
  const ofProduction = live.filter((file) => /prod/i.test(file))
  const [file] = live.length === 1 ? live : ofProduction
  if (file === undefined || (live.length > 1 && ofProduction.length !== 1)) return null
  const text = await readText(project, file)
  return text === null ? null : { file, text, mount: null, isCopied: false }
}

async function copiedFile(project: Folder, published: string | null): Promise<ServerFile | null> {
  for (const container of await readContainerFiles(project)) {
    const copies = allCopies(container)
    const build = copies.find(({ from }) => published !== null && from === joinPath(published))
    for (const { from, to } of copies.toReversed()) {
      if (!/\/nginx\//.test(to)) continue
      const file = /\.\w+$/.test(nameOf(from)) ? from : await fileOf(project, from)
      const text = file === null ? null : await readText(project, file)
      if (file !== null && text !== null)
        return {
          file,
          text,
          mount: build ? { directory: build.to, place: build.place } : null,
          isCopied: true,
        }
    }
  }
  return null
}

/** The file of a directory that is copied as a whole. */
async function fileOf(project: Folder, directory: string): Promise<string | null> {
  const names = ((await listIfThere(project, directory)) ?? []).filter(({ kind }) => kind === 'file')
  const inside = names.map(({ name }) => name).filter((name) => /\.(?:conf|template)$/.test(name))
  const whole =
    inside.find((name) => name === 'nginx.conf') ?? inside.find((name) => /^default\.conf/.test(name))
  const [first] = inside
  const file = whole ?? (inside.length === 1 ? first : undefined)
  return file === undefined ? null : joinPath(directory, file)
}

/** Gives the files that a configuration includes, of those beside it: by their last steps, since the others are the server's own. */
export function includesBeside(project: Folder, file: string) {
  const home = file.includes('/') ? file.slice(0, file.lastIndexOf('/')) : ''
  return async (pattern: string): Promise<{ file: string; text: string }[]> => {
    const steps = pattern.split('/').filter((step) => step !== '')
    const last = steps.at(-1) ?? ''
    const parent = steps.at(-2)
    const fits = patternFor(last)
    const found: { file: string; text: string }[] = []
    for (const directory of parent === undefined ? [home] : [joinPath(home, parent), home]) {
      for (const { name, kind } of (await listIfThere(project, directory)) ?? []) {
        const path = joinPath(directory, name)
        const text = kind === 'file' && path !== file && fits(name) ? await readText(project, path) : null
        if (text !== null) found.push({ file: path, text })
      }
      if (found.length > 0) return found
    }
    return found
  }
}

/** Whether a name fits a last step with stars. */
function patternFor(step: string): (name: string) => boolean {
  const parts = step.split('*')
  return (name) => {
    if (parts.length === 1) return name === step
    const [first = ''] = parts
    const last = parts.at(-1) ?? ''
    return name.length >= first.length + last.length && name.startsWith(first) && name.endsWith(last)
  }
}
