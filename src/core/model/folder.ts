import { FolderError } from './errors.ts'

/** What a directory holds, one level deep. `other` is what must not be followed: sockets, links that leave. */
export interface Entry {
  readonly name: string
  readonly kind: 'file' | 'directory' | 'other'
  /** What an `other` is: "a named pipe", "a link that leads out of the folder". */
  readonly what?: string
}

/** A larger file is no page or bundle that a browser would be sent; bytes. */
export const largestFile = 200_000_000

/** A larger file is no source, manifest or configuration that a person wrote; bytes. */
export const largestText = 10_000_000

/** Facts of one file that can be had without reading it. */
export interface FileStat {
  /** Bytes. */
  readonly size: number
  /** Milliseconds since the epoch, or null where the source of the folder knows no times. */
  readonly modified: number | null
}

/**
 * A tree of files, wherever it is kept. Paths use `/`, begin without one, and `''` is the folder itself.
 * Implementations never leave the tree, whatever a path or a link says.
 */
export interface Folder {
  /** What a person calls this folder. */
  readonly label: string
  /** The entries of one directory, sorted by name. Throws {@link FolderError} when there is none. */
  list(directory: string): Promise<readonly Entry[]>
  /** Throws {@link FolderError} when the file is missing, can't be read, or is larger than `most` bytes. */
  read(path: string, most?: number): Promise<Uint8Array>
  /** Null when there is no such file. */
  stat(path: string): Promise<FileStat | null>
  /** The same as {@link read}, decoded as UTF-8 and at once, where that can be had. A byte order mark is kept. */
  readonly readUtf8?: (path: string, most?: number) => string
  /** The same as {@link read}, looking anew at where links lead, for whoever reads long after the folder was opened. */
  readonly readNow?: (path: string, most?: number) => Uint8Array
  /** Where it is, for readers that open it again elsewhere: the folder that was opened, and the path below it. */
  readonly origin?: { readonly root: string; readonly directory: string }
}

/** Joins path parts; what climbs above where they begin keeps its `..` in front. */
export function joinUp(...parts: readonly string[]): string {
  const out: string[] = []
  for (const step of parts.join('/').split('/')) {
    if (step === '..' && out.length > 0 && out.at(-1) !== '..') out.pop()
    else if (step !== '' && step !== '.') out.push(step)
  }
  return out.join('/')
}

/** Whether a joined path leads out of where it begins. */
export function climbs(path: string): boolean {
  return path === '..' || path.startsWith('../')
}

/** Joins path parts; `..` never climbs above the folder. */
export function joinPath(...parts: readonly string[]): string {
  const out: string[] = []
  for (const step of parts.join('/').split('/')) {
    if (step === '..') out.pop()
    else if (step !== '' && step !== '.') out.push(step)
  }
  return out.join('/')
}

/** The directory part of a path, `''` at the top. */
export function directoryOf(path: string): string {
  const slash = path.lastIndexOf('/')
  return slash < 0 ? '' : path.slice(0, slash)
}

/** The last step of a path. */
export function nameOf(path: string): string {
  return path.slice(path.lastIndexOf('/') + 1)
}

/** The lower-case extension without its dot, `''` when there is none. A leading dot begins a name, not an extension. */
export function extensionOf(path: string): string {
  const name = nameOf(path)
  const dot = name.lastIndexOf('.')
  return dot <= 0 ? '' : name.slice(dot + 1).toLowerCase()
}

/**
 * The folder below a folder, or beside it: its paths may climb as far as the folder that was opened first goes, and no
 * further.
 */
export function within(folder: Folder, directory: string, label = directory || folder.label): Folder {
  const at = joinUp(directory)
  return at === '' ? folder : below(folder, at, label)
}

/** The same folder without some of the entries right in it. What asks for one of their files by its path gets it. */
export function without(folder: Folder, names: ReadonlySet<string>): Folder {
  const list = async (path: string): Promise<readonly Entry[]> => {
    const entries = await folder.list(path)
    return path === '' ? entries.filter(({ name }) => !names.has(name)) : entries
  }
  return names.size === 0 ? folder : { ...below(folder, '', folder.label), list }
}

function below(folder: Folder, at: string, label: string): Folder {
  const { origin } = folder
  const readUtf8 = folder.readUtf8?.bind(folder)
  const readNow = folder.readNow?.bind(folder)
  const whole = origin && joinUp(origin.directory, at)
  return {
    label,
    ...(readNow ? { readNow: (path: string, most?: number) => readNow(joinUp(at, path), most) } : {}),
    ...(readUtf8 ? { readUtf8: (path: string, most?: number) => readUtf8(joinUp(at, path), most) } : {}),
    ...(origin && whole !== undefined && !climbs(whole)
      ? { origin: { root: origin.root, directory: whole } }
      : {}),
    list: (path) => folder.list(joinUp(at, path)),
    read: (path, most) => folder.read(joinUp(at, path), most),
    stat: (path) => folder.stat(joinUp(at, path)),
  }
}

/** Says that a path leads out of the folder that was opened. Nothing is read there. */
export function outsideOf(label: string, path: string): FolderError {
  return new FolderError('missing', `${path} is outside of ${label}, which was opened.`)
}

/** The entries of a directory, or null when it is not there. */
export async function listIfThere(folder: Folder, directory: string): Promise<readonly Entry[] | null> {
  try {
    return await folder.list(directory)
  } catch (error) {
    if (error instanceof FolderError && error.reason === 'missing') return null
    throw error
  }
}

/** Every file below `directory`, sorted within each directory. `enter` decides which directories are walked. */
export async function* walk(
  folder: Folder,
  directory = '',
  enter: (path: string, name: string) => boolean = () => true,
): AsyncGenerator<string> {
  for (const entry of await folder.list(directory)) {
    const path = directory === '' ? entry.name : `${directory}/${entry.name}`
    if (entry.kind === 'file') yield path
    else if (entry.kind === 'directory' && enter(path, entry.name)) yield* walk(folder, path, enter)
  }
}

/** Entries looked at below one directory: more are no project and no site. */
const mostEntries = 1_000_000

/**
 * The same, all at once: cheaper where every file is wanted anyway. A directory that is gone, or can't be listed, is left out.
 * @param enter decides which directories are walked
 * @param onOther is called with what is neither file nor directory, and with directories that can't be listed
 */
export async function filesBelow(
  folder: Folder,
  enter: (path: string, name: string) => boolean,
  onOther: (path: string, reason: string) => void = () => {},
): Promise<string[]> {
  const found: string[] = []
  let entries = 0
  const add = async (directory: string): Promise<void> => {
    for (const { name, kind, what } of await listOrNote(folder, directory, onOther)) {
      if (++entries > mostEntries)
        return onOther(directory, `There is more in ${folder.label} than is looked at.`)
      const path = directory === '' ? name : `${directory}/${name}`
      if (kind === 'file') found.push(path)
      else if (kind === 'other') onOther(path, `${path} is ${what ?? 'no regular file'}, and is not read.`)
      else if (enter(path, name)) await add(path)
    }
  }
  await add('')
  return found
}

async function listOrNote(
  folder: Folder,
  directory: string,
  onOther: (path: string, reason: string) => void,
): Promise<readonly Entry[]> {
  try {
    return await folder.list(directory)
  } catch (error) {
    if (!(error instanceof FolderError) || directory === '') throw error
    if (error.reason !== 'missing') onOther(directory, error.message)
    return []
  }
}
