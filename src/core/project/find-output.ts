import { directoryOf, type Folder, joinPath, listIfThere, nameOf } from '../model/folder.ts'
import { withoutQuery } from '../model/reference.ts'
import { readText, safeDecode } from '../model/text.ts'
import { IgnoreRules } from './ignore-rules.ts'

/** How far down an output is looked for, and in how many directories: nobody nests it deeper. */
const deepest = 3
const mostDirectories = 400

/** Directories that hold what is built from, or belong to others. */
const notOutput =
  /^(?:node_modules|src|test|tests|__tests__|e2e|cypress|coverage|examples?|fixtures?|stories|vendor|bower_components|\.git|\.hg|\.svn)$/

/** What no browser runs: a page that starts it is a source. */
const source = /\.(?:[mc]?tsx?|jsx|vue|svelte|astro|s[ac]ss|less)$/

/**
 * The directories below a project that hold a built site: an entry page, and a script or style sheet that it asks for. The
 * topmost of each; the project's own directory is none.
 */
export async function outputsIn(folder: Folder): Promise<string[]> {
  const found: string[] = []
  let waiting = ['']
  let seen = 0
  for (let depth = 0; depth <= deepest && waiting.length > 0; depth++) {
    const next: string[] = []
    for (const directory of waiting) {
      if (++seen > mostDirectories) return found
      if (directory !== '' && (await isOutput(folder, directory))) found.push(directory)
      else next.push(...(await directoriesIn(folder, directory)))
    }
    waiting = next
  }
  return made(folder, found.sort())
}

/** The only directory below a project that holds a built site and that its repository leaves out; null where there is none, or more. */
export async function madeOutput(folder: Folder): Promise<string | null> {
  const found = await outputsIn(folder)
  const ignored = new IgnoreRules(folder)
  const [only] = found
  return only !== undefined && found.length === 1 && (await ignored.has(only)) ? only : null
}

/** Of several directories, what the repository leaves out is what a build makes: a source can look like a site. */
async function made(folder: Folder, found: string[]): Promise<string[]> {
  if (found.length < 2) return found
  const ignored = new IgnoreRules(folder)
  const isMade = await Promise.all(found.map((directory) => ignored.has(directory)))
  return isMade.includes(true) ? found.filter((_, index) => isMade[index]) : found
}

/**
 * The only site right below a directory that holds no page, script or style sheet of its own: what is for browsers, as
 * builders leave it beside what is for a server. Null where the directory is a site, or which is meant can't be told.
 */
export async function siteBelow(folder: Folder, directory: string): Promise<string | null> {
  const entries = (await listIfThere(folder, directory)) ?? []
  if (entries.some(({ name, kind }) => kind !== 'directory' && /\.(?:html?|[mc]?js|css)$/.test(name)))
    return null
  let found: string | null = null
  for (const below of await directoriesIn(folder, directory)) {
    if ((await folder.stat(joinPath(below, 'index.html'))) === null) continue
    const isSite = forBrowsers.test(nameOf(below)) || (await isOutput(folder, below))
    if (found !== null || !isSite) return null
    found = below
  }
  return found
}

/**
 * The directory around one that a bundler writes into, whose own page loads what is in it: the site is there. Null where no page
 * does; the project's own directory is `.`.
 */
export async function siteAround(folder: Folder, directory: string): Promise<string | null> {
  if (directory === '' || (await folder.stat(joinPath(directory, 'index.html'))) !== null) return null
  for (let above = directoryOf(directory); ; above = directoryOf(above)) {
    const page = await readText(folder, joinPath(above, 'index.html'))
    const loaded = page === null ? [] : filesOf(page)
    if (loaded.some((url) => leadsInto(url, above, directory))) return above || '.'
    if (above === '') return null
  }
}

/** Whether a URL of a page is below a directory, whatever base path stands before it. */
function leadsInto(url: string, from: string, directory: string): boolean {
  const steps = stepsOf(url)
  return steps.some((_, index) => joinPath(from, ...steps.slice(index)).startsWith(`${directory}/`))
}

/** A page of one of these directories need not ask for a file to be a site's. */
const forBrowsers = /^(?:client|public|browser|static)$/

async function directoriesIn(folder: Folder, directory: string): Promise<string[]> {
  const entries = (await listIfThere(folder, directory)) ?? []
  return entries.flatMap(({ name, kind }) =>
    kind === 'directory' && !notOutput.test(name) ? [joinPath(directory, name)] : [],
  )
}

async function isOutput(folder: Folder, directory: string): Promise<boolean> {
  const page = await readText(folder, joinPath(directory, 'index.html'))
  if (page === null) return false
  const files = filesOf(page)
  if (files.some((file) => source.test(file))) return false
  for (const file of files) {
    if (/\.(?:[mc]?js|css)$/.test(file) && (await isBelow(folder, directory, file))) return true
  }
  return false
}

/** URLs of the scripts and style sheets that a page loads. */
function filesOf(page: string): string[] {
  const asked = [...page.matchAll(/<(?:script|link)\b[^>]*?\b(?:src|href)=["']?([^"'\s>]+)/gi)]
  return asked.map((match) => withoutQuery(match[1] ?? ''))
}

function stepsOf(url: string): string[] {
  return safeDecode(url.replace(/^(?:[a-z]+:)?\/\/[^/]*/i, ''))
    .split('/')
    .filter((step) => step !== '' && step !== '.')
}

/** Whether a URL is that of a file below a directory, whatever base path stands before it. */
async function isBelow(folder: Folder, directory: string, url: string): Promise<boolean> {
  const steps = stepsOf(url)
  for (let from = 0; from < steps.length; from++) {
    if ((await folder.stat(joinPath(directory, ...steps.slice(from)))) !== null) return true
  }
  return false
}
