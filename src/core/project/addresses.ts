import { FolderError } from '../model/errors.ts'
import { type Folder, listIfThere } from '../model/folder.ts'
import type { Place } from '../model/reading.ts'
import { positionAt, readText } from '../model/text.ts'
import type { Survey } from './survey.ts'

/** An address that something names as the site's. */
export interface NamedAddress {
  /** A whole address that ends in a slash; of a repository, the path that hosts serve it under: `/crossings/`. */
  readonly value: string
  readonly from: Place
  /** `homepage`: the manifest's. `domain file`: a file that holds nothing but a host name. `repository`: the name of the remote. */
  readonly kind: 'configuration' | 'homepage' | 'domain file' | 'repository'
}

/** Where files are that the build copies as they are. */
const copied = ['public', 'static', '']

/** A name without ending, in capitals, as files for hosts have it. */
const domainFileName = /^[A-Z]{3,12}$/
const hostName = /^(?=.{4,253}$)(?:[a-z\d](?:[a-z\d-]{0,61}[a-z\d])?\.)+[a-z]{2,63}$/i

/** What names the site's address, the surest first: the configuration, files with a domain, the manifest, the repository. */
export async function namedAddresses(
  project: Folder,
  build: { readonly folder: Folder | null; readonly path: string },
  { siteAddress, definition }: Pick<Survey, 'siteAddress' | 'definition'>,
): Promise<NamedAddress[]> {
  const found: NamedAddress[] = []
  const configured = siteAddress?.value
  if (siteAddress && configured && 'file' in siteAddress.from && isAddress(configured)) {
    found.push({ value: whole(configured), from: siteAddress.from, kind: 'configuration' })
  }
  for (const directory of definition ? copied : [])
    found.push(...(await domainsIn(project, directory, directory)))
  if (build.folder) found.push(...(await domainsIn(build.folder, '', build.path)))
  const homepage = await homepageOf(project)
  if (homepage) found.push(homepage)
  const repository = await repositoryOf(project)
  if (repository) found.push(repository)
  return found.filter(
    ({ value, kind }, index) =>
      found.findIndex((other) => other.value === value && other.kind === kind) === index,
  )
}

function isAddress(text: string): boolean {
  return URL.canParse(text) && /^https?:$/.test(new URL(text).protocol)
}

function whole(text: string): string {
  const { origin, pathname } = new URL(text)
  return `${origin}${pathname.endsWith('/') ? pathname : `${pathname}/`}`
}

/** Files that hold a single host name and nothing else. */
async function domainsIn(folder: Folder, directory: string, shown: string): Promise<NamedAddress[]> {
  const found: NamedAddress[] = []
  for (const { name, kind } of (await listIfThere(folder, directory)) ?? []) {
    if (kind !== 'file' || !domainFileName.test(name)) continue
    const path = directory === '' ? name : `${directory}/${name}`
    const stat = await folder.stat(path)
    const text = stat && stat.size < 300 ? ((await readText(folder, path)) ?? '').trim() : ''
    if (!hostName.test(text)) continue
    const file = shown === '' || shown === '.' ? name : `${shown}/${name}`
    const from = { file, line: 1, column: 1 }
    found.push({ value: `https://${text.toLowerCase()}/`, from, kind: 'domain file' })
  }
  return found
}

/** The manifest's homepage, unless it is only where the sources are kept. */
async function homepageOf(project: Folder): Promise<NamedAddress | null> {
  const text = await quietly(() => readText(project, 'package.json'))
  const match = /"homepage"\s*:\s*"(https?:\/\/[^"]+)"/.exec(text ?? '')
  const url = match?.[1]
  if (!text || !match || url === undefined || !isAddress(url) || url.includes('#')) return null
  const { host } = new URL(url)
  const repository = /"repository"\s*:\s*(?:"([^"]+)"|\{[^}]*"url"\s*:\s*"([^"]+)")/.exec(text)
  if ((repository?.[1] ?? repository?.[2] ?? '').includes(host)) return null
  return {
    value: whole(url),
    from: { file: 'package.json', ...positionAt(text, match.index) },
    kind: 'homepage',
  }
}

/** The name of the repository's remote, which hosts of repositories serve it under. */
async function repositoryOf(project: Folder): Promise<NamedAddress | null> {
  const text = await quietly(() => readText(project, '.git/config'))
  const match = /\[remote "origin"\][^[]*?\burl\s*=\s*\S*[/:]([\w.-]+?)(?:\.git)?\s*(?:$|\n)/.exec(text ?? '')
  const name = match?.[1]
  if (!text || !match || !name) return null
  const at = match.index + match[0].indexOf('url')
  // A repository that is named as a domain is served at its top.
  const value = hostName.test(name) ? '/' : `/${name}/`
  return { value, from: { file: '.git/config', ...positionAt(text, at) }, kind: 'repository' }
}

async function quietly<T>(read: () => Promise<T>): Promise<T | null> {
  try {
    return await read()
  } catch (error) {
    if (error instanceof FolderError) return null
    throw error
  }
}
