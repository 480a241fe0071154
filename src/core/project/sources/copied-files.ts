import { extensionOf, type Folder, filesBelow, joinPath, listIfThere, within } from '../../model/folder.ts'

/** A file that a build copies as it is, and that the build folder holds otherwise. */
export interface ChangedCopy {
  /** Below the project. */
  readonly source: string
  /** Below the build folder. */
  readonly built: string
}

/** Where projects keep what their build copies. */
const directories = ['public', 'static', 'src/public', 'src/static', 'docs/public']
const mostFiles = 400
/** Larger files are told apart by their size; bytes. */
const largest = 32_768

/** What no builder rewrites on its way; of what some do, one that arrived as it is shows that this one does not. */
const untouched = new Set(['txt', 'xml', 'json', 'webmanifest', 'ico', 'pdf', 'woff', 'woff2', 'csv'])

/**
 * Files that the build copied and whose source is another now: proof without any time that the build is older. A directory is
 * one that is copied when another of its files stands in the build folder as it is.
 */
export async function changedCopies(
  project: Folder,
  build: Folder,
  buildPath: string,
): Promise<ChangedCopy[]> {
  const found: ChangedCopy[] = []
  for (const directory of directories) {
    const holdsBuild = `${joinPath(buildPath)}/`.startsWith(`${directory}/`)
    if (holdsBuild || (await listIfThere(project, directory)) === null) continue
    found.push(...(await changedIn(project, build, directory)))
  }
  return found
}

async function changedIn(project: Folder, build: Folder, directory: string): Promise<ChangedCopy[]> {
  const same = new Set<string>()
  const changed: string[] = []
  const paths = await filesBelow(within(project, directory), () => true)
  for (const path of paths.filter(isPlain).slice(0, mostFiles)) {
    const alike = await areAlike(project, joinPath(directory, path), build, path)
    if (alike === true) same.add(extensionOf(path))
    else if (alike === false) changed.push(path)
  }
  return changed
    .filter((path) => same.has(extensionOf(path)) || (same.size > 0 && untouched.has(extensionOf(path))))
    .map((built) => ({ source: joinPath(directory, built), built }))
}

/** Pages are templates in some directories of the name. */
function isPlain(path: string): boolean {
  return extensionOf(path) !== 'html' && !path.split('/').some((step) => step.startsWith('.'))
}

/** Whether two files hold the same, blanks of a text aside; null where one is not there. */
async function areAlike(
  project: Folder,
  source: string,
  build: Folder,
  built: string,
): Promise<boolean | null> {
  const [from, to] = [await project.stat(source), await build.stat(built)]
  if (!from || !to) return null
  const isSmall = Math.max(from.size, to.size) <= largest
  // Large files of one size are taken as the same, and files of two sizes are not, but for the blanks of a text.
  if (!isSmall || (from.size !== to.size && !isText(built))) return from.size === to.size
  const [before, after] = [await project.read(source), await build.read(built)]
  const isSame = before.length === after.length && before.every((byte, index) => byte === after[index])
  return isSame || (isText(built) && withoutBlanks(before) === withoutBlanks(after))
}

function isText(path: string): boolean {
  return /^(?:txt|xml|json|webmanifest|csv|svg|css|m?js)$/.test(extensionOf(path))
}

function withoutBlanks(bytes: Uint8Array): string {
  return new TextDecoder('latin1').decode(bytes).replace(/\s+/g, '')
}
