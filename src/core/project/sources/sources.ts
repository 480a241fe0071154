import { FolderError } from '../../model/errors.ts'
import {
  directoryOf,
  extensionOf,
  type Folder,
  filesBelow,
  joinUp,
  nameOf,
  within,
} from '../../model/folder.ts'
import { type Place, placeAt } from '../../model/reading.ts'
import { excerptAt, readText, textAtOnce } from '../../model/text.ts'

/** Templates that pages are made of. */
const templates = [
  'njk',
  'liquid',
  'ejs',
  'hbs',
  'handlebars',
  'mustache',
  'twig',
  'pug',
  'gjs',
  'gts',
  'marko',
  'razor',
]
/** Languages that are compiled for browsers: what they write out stands in the build as it is. */
const compiled = ['coffee', 'civet', 'imba', 'elm', 'res', 'purs', 'cljs', 'dart']

const readable = new Set([
  'ts',
  'tsx',
  'js',
  'jsx',
  'mjs',
  'mts',
  'cjs',
  'cts',
  'vue',
  'svelte',
  'astro',
  'html',
  'css',
  'scss',
  'md',
  'mdx',
  ...templates,
  ...compiled,
])

/** Data that is published as it is, or that sources import: it may say where a service is, and name pictures. */
const inData = /^.+\/[^/]+\.json$/
/** What tools read, and what is translated: neither names what a page requests. */
const noData =
  /(?:^|\/)(?:(?:package|composer|project|deno|components|manifest)\.json|[tj]sconfig[\w.-]*\.json|[\w.-]*(?:-lock|\.lock|\.config|\.schema|rc)\.json)$|^(?!public\/|static\/|src\/assets\/).*(?:^|\/)(?:locales?|i18n|lang|langs|languages|translations?|messages|fixtures|mocks?|__\w+__)\//i

/** Directories that hold no sources of the site. The publish directory is added to them. */
const skipped = new Set([
  'node_modules',
  'coverage',
  'dist',
  'build',
  'out',
  'test',
  'tests',
  '__tests__',
  'e2e',
])
/** Configuration runs while building; tests never ship. */
const notSource = /^[\w.-]+\.config\.[cm]?[jt]s$|\.(?:test|spec|stories|cy)\.[a-z]+$|\.d\.[cm]?ts$|\.min\.js$/

/** `http://localhost` does not stand where `http://localhost:3000` does. */
const wordPart = /^[\w:.-]/
const wordPartOfHost = /^(?:[\w.-]|:\d)/

const prose = /\.mdx?$/
/** Texts about the project, of which no page is made. */
const ofRepository = /(?:^|\/)(?:readme|changelog|contributing|license|security|code[_-]of[_-]conduct)[^/]*$/i
/** Before the URL of a link or picture in Markdown, or of an attribute. */
const inMarkup = /(?:\]\(\s*<?|\]:\s*<?|\b(?:src|href|poster)\s*=\s*["']?)$/

/** Larger files are data, and more than this is no source of one site. Bytes; files; UTF-16 units that are held in memory. */
export const largestSource = 2_000_000
const mostSources = 20_000
const mostText = 96_000_000
/** Data beyond it is no reason to leave out code. Files; UTF-16 units. */
const mostData = 2_000
const mostDataText = 16_000_000

/** A place in the sources with the text around it. */
export interface SourceMatch extends Place {
  /** In the source's text, in UTF-16 units. */
  readonly offset: number
  readonly excerpt: string
}

/** The sources of a project, in memory while it is judged. */
export class Sources {
  readonly texts: ReadonlyMap<string, string>
  /** The paths of all of them, of those too whose texts nobody wanted. */
  readonly files: readonly string[]
  /** How many there are beyond what is read. */
  readonly left: number

  constructor(
    texts: ReadonlyMap<string, string> = new Map(),
    files: readonly string[] = [...texts.keys()],
    left = 0,
  ) {
    this.texts = texts
    this.files = files
    this.left = left
  }

  /**
   * The first place where a text stands in the sources as a whole word, or null.
   * @param beside another text that the same source must hold
   */
  find(text: string, beside = ''): SourceMatch | null {
    for (const { file, at } of this.#occurrences(text, beside))
      return matchAt(file, this.texts.get(file) ?? '', at, text)
    return null
  }

  /** Every such place, up to a bound. */
  findAll(text: string): SourceMatch[] {
    const found: SourceMatch[] = []
    for (const { file, at } of this.#occurrences(text, '')) {
      if (found.length >= mostMatches) break
      found.push(matchAt(file, this.texts.get(file) ?? '', at, text))
    }
    return found
  }

  /** Where a URL is written from its beginning: a path may also be the end of a longer one, which is another. */
  findUrls(url: string): SourceMatch[] {
    return this.findAll(url).filter((match) => this.#begins(url, match))
  }

  /** Where texts for people link to a URL, or show it: `[start](/start/)`. */
  findInProse(url: string): SourceMatch[] {
    const found: SourceMatch[] = []
    for (const { file, at } of this.#occurrences(
      url,
      '',
      (path) => prose.test(path) && !ofRepository.test(path),
    )) {
      const source = this.texts.get(file) ?? ''
      if (found.length >= mostMatches) break
      if (inMarkup.test(source.slice(Math.max(0, at - 60), at))) found.push(matchAt(file, source, at, url))
    }
    return found.filter((match) => this.#begins(url, match))
  }

  #begins(url: string, { file, offset }: SourceMatch): boolean {
    return !url.startsWith('/') || !/[\w@~.}/-]/.test(this.texts.get(file)?.charAt(offset - 1) ?? '')
  }

  *#occurrences(
    text: string,
    beside: string,
    // What prose mentions, nobody calls.
    isLooked: (file: string) => boolean = (file) => !prose.test(file),
  ): Generator<{ file: string; at: number }> {
    if (text === '') return
    const part = beside === '' ? wordPart : wordPartOfHost
    for (const [file, source] of this.texts) {
      if (!isLooked(file) || !source.includes(beside)) continue
      for (let at = source.indexOf(text); at >= 0; at = source.indexOf(text, at + 1)) {
        if (part.test(source.slice(at + text.length, at + text.length + 2))) continue
        if (!inData.test(file) && isBundled(source, at)) continue
        yield { file, at }
      }
    }
  }
}

/** Places of one text that are reported; more help nobody. */
const mostMatches = 50

function matchAt(file: string, source: string, at: number, text: string): SourceMatch {
  return { ...placeAt(file, source, at), offset: at, excerpt: excerptAt(source, at, text.length) }
}

/** Nobody writes longer lines by hand; UTF-16 units. What a bundler wrote is a library, wherever it is. */
const longestLine = 2_000

function isBundled(source: string, at: number): boolean {
  const end = source.indexOf('\n', at)
  return (end < 0 ? source.length : end) - source.lastIndexOf('\n', at) > longestLine
}

function isDataOfSite(path: string): boolean {
  return inData.test(path) && !noData.test(path)
}

/** Another build beside the sources, or a library as it is shipped: whoever wrote the site did not write it. */
function isWrittenByBundler(path: string, text: string): boolean {
  if (text.length < 10 * longestLine || !/\.[cm]?js$/.test(path)) return false
  let long = 0
  for (let start = 0, end = 0; start < text.length; start = end + 1) {
    end = text.indexOf('\n', start)
    if (end < 0) end = text.length
    if (end - start > longestLine) long += end - start
  }
  return long > text.length / 2
}

/** A file of another package is known when another project has read it. */
async function sharedText(
  folder: Folder,
  path: string,
  shared: SharedSources | undefined,
): Promise<string | null> {
  const key = shared && path.startsWith('../') ? joinUp(shared.directory, path) : null
  if (!shared || key === null) return sourceText(folder, path)
  const known = shared.texts.get(key)
  if (known !== undefined) return known
  const text = await sourceText(folder, path)
  shared.texts.set(key, text)
  return text
}

async function sourceText(folder: Folder, path: string): Promise<string | null> {
  return textAtOnce(folder, path, largestSource) ?? readText(folder, path, largestSource)
}

/** What lies around sources and is none. */
export interface Around {
  /** The publish directory. */
  readonly output: string | null
  /** The configuration file. */
  readonly config: string | null
  /** Directories of the packages of the same repository that the project imports, from the project. */
  readonly packages?: readonly string[]
  /** What is known of these packages, where several projects of the repository are looked at. */
  readonly shared?: SharedSources | undefined
}

/** Texts of packages that several projects import, each read once. */
export interface SharedSources {
  /** The project's directory in the repository. */
  readonly directory: string
  /** By the path of a file from the root of the repository; null where it could not be read as text. */
  readonly texts: Map<string, string | null>
}

/**
 * Reads a project's sources: no dependencies, no output, no tests. The texts that are not wanted are dropped at once, and
 * only their paths are kept: thousands of texts in memory cost more than to read them.
 */
export async function readSources(
  folder: Folder,
  { output, config, packages = [], shared }: Around,
  wanted: (path: string, text: string) => boolean = () => true,
): Promise<Sources> {
  const texts = new Map<string, string>()
  const files: string[] = []
  let room = mostText
  let dataRoom = mostDataText
  let left = 0
  const among = directoryOf(config ?? '')
  const enter = (path: string, name: string): boolean => {
    // Some frameworks keep what a page is made of beside their configuration, in a directory with a dot: `.vitepress/theme`.
    const isHidden = name.startsWith('.') && path !== among
    const isCache = directoryOf(path) === among && nameOf(among).startsWith('.') && name === 'cache'
    return path !== output && !isHidden && !isCache && !skipped.has(name)
  }
  const ofPackages = await Promise.all(packages.map((directory) => filesOf(folder, directory, enter)))
  const all = [...(await filesBelow(folder, enter)), ...ofPackages.flat()].filter(
    (path) => !notSource.test(path) && !(path === config && nameOf(among).startsWith('.')),
  )
  const data = all.filter(isDataOfSite).slice(0, mostData)
  for (const path of [...all.filter((each) => readable.has(extensionOf(each))), ...data]) {
    const isData = isDataOfSite(path)
    if (files.length >= mostSources || room <= 0) {
      if (!isData) left++
      continue
    }
    if (isData && (dataRoom <= 0 || ((await folder.stat(path))?.size ?? 0) > largestSource)) continue
    const text = await sharedText(folder, path, shared)
    // What holds NUL is no text.
    if (text === null || text.includes('\u0000') || isWrittenByBundler(path, text)) continue
    files.push(path)
    if (!wanted(path, text)) continue
    texts.set(path, text)
    room -= text.length
    if (isData) dataRoom -= text.length
  }
  return new Sources(texts, files, left)
}

/** The files of another package, from the project. One that can't be read has none. */
async function filesOf(
  folder: Folder,
  directory: string,
  enter: (path: string, name: string) => boolean,
): Promise<string[]> {
  try {
    const files = await filesBelow(within(folder, directory), enter)
    return files.map((path) => joinUp(directory, path))
  } catch (error) {
    if (error instanceof FolderError) return []
    throw error
  }
}
