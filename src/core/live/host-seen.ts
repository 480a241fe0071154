import type { Documents, Host } from '../host/host.ts'
import { presetNamed } from '../host/presets.ts'
import { contentTypeOf } from '../model/content-type.ts'
import type { FileFacts } from '../model/facts.ts'
import { extensionOf, type Folder, nameOf } from '../model/folder.ts'
import type { Site } from '../model/site.ts'
import { encodePath } from '../requests/addresses.ts'
import { sameBytes } from './difference.ts'
import type { LiveAsker, LiveReply } from './reply.ts'

/** What a host was seen to do, as a host file has it. */
export type HostSeen = Pick<
  Host,
  | 'directoryIndex'
  | 'extensionless'
  | 'trailingSlash'
  | 'fallback'
  | 'notFound'
  | 'withheld'
  | 'letterCase'
  | 'contentTypes'
>

/** Kinds of files whose types are asked for. */
const mostTypes = 15
/** A name that no site has. */
const nobody = 'no-such-page-4f7c21'

/** What is needed to look at a host. */
export interface HostSight {
  readonly site: Site
  readonly facts: readonly FileFacts[]
  readonly build: Folder
  readonly ask: LiveAsker
}

/** Asks an address for fewer than forty harmless things, and tells what kind of host answers. */
export async function hostSeen(sight: HostSight): Promise<HostSeen> {
  const look = new Look(sight)
  return {
    directoryIndex: 'index.html',
    extensionless: await look.leavesEndingsOut(),
    trailingSlash: await look.slash(),
    ...(await look.forUnknown()),
    withheld: await look.withheld(),
    letterCase: await look.letterCase(),
    contentTypes: await look.types(),
  }
}

class Look {
  readonly #sight: HostSight
  readonly #paths: readonly string[]

  constructor(sight: HostSight) {
    this.#sight = sight
    this.#paths = sight.facts.map(({ path }) => path).sort()
  }

  async #ask(path: string): Promise<LiveReply | null> {
    const { site, ask } = this.#sight
    const reply = await ask({ url: site.address + path, most: 4_000_000 })
    return typeof reply === 'string' ? null : reply
  }

  async #isFile(reply: LiveReply | null, path: string): Promise<boolean> {
    return reply?.isWhole === true && sameBytes(reply.body, await this.#sight.build.read(path))
  }

  async leavesEndingsOut(): Promise<boolean> {
    const page = this.#paths.find(
      (path) => path.endsWith('.html') && !/^(?:index|404|200|_.*)\.html$/.test(nameOf(path)),
    )
    if (page === undefined) return false
    const reply = await this.#ask(encodePath(page.slice(0, -'.html'.length)))
    return reply?.status === 200 && (await this.#isFile(reply, page))
  }

  async slash(): Promise<Host['trailingSlash']> {
    const page = this.#paths.find((path) => path.endsWith('/index.html'))
    if (page === undefined) return 'keep'
    const directory = encodePath(page.slice(0, -'/index.html'.length))
    const [bare, slashed] = [await this.#ask(directory), await this.#ask(`${directory}/`)]
    const leads = (reply: LiveReply | null): boolean =>
      reply !== null && reply.status >= 301 && reply.status <= 308
    if (leads(slashed) && bare?.status === 200) return 'drop'
    return 'keep'
  }

  /** The document for what is not there, with its status. */
  async forUnknown(): Promise<{ fallback: Documents | null; notFound: Documents | null }> {
    const reply = await this.#ask(nobody)
    if (reply === null) return { fallback: null, notFound: null }
    for (const path of this.#paths.filter((each) => /^[^/]+\.html$/.test(each))) {
      if (!(await this.#isFile(reply, path))) continue
      const documents = { documents: [path], status: reply.status }
      return reply.status < 400
        ? { fallback: documents, notFound: null }
        : { fallback: null, notFound: documents }
    }
    return { fallback: null, notFound: null }
  }

  /** Beginnings of names that the folder has and the host does not send. */
  async withheld(): Promise<string[]> {
    const found: string[] = []
    for (const start of ['_', '.']) {
      const path = this.#paths.find((each) =>
        each.split('/').some((step) => step.startsWith(start) && !step.startsWith('.ht')),
      )
      if (path === undefined) continue
      const reply = await this.#ask(encodePath(path))
      if (reply !== null && reply.status >= 400) found.push(start)
    }
    return found
  }

  async letterCase(): Promise<Host['letterCase']> {
    const path = this.#paths.find((each) => /[a-z]\.(?!html)\w+$/.test(each) && !/-|(?:^|\/)[._]/.test(each))
    if (path === undefined) return 'kept'
    const other = path.slice(0, -nameOf(path).length) + nameOf(path).toUpperCase()
    if (this.#paths.includes(other)) return 'kept'
    const reply = await this.#ask(encodePath(other))
    return reply?.status === 200 && (await this.#isFile(reply, path)) ? 'ignored' : 'kept'
  }

  /** Types by extension, where they are not the usual ones. */
  async types(): Promise<Record<string, string>> {
    const types: [string, string][] = []
    const asked = new Set<string>()
    for (const path of this.#paths) {
      const extension = extensionOf(path)
      if (extension === '' || extension === 'html' || asked.has(extension) || asked.size >= mostTypes)
        continue
      asked.add(extension)
      const reply = await this.#ask(encodePath(path))
      const type =
        reply?.status === 200 ? reply.headers.get('content-type')?.split(';', 1)[0]?.trim() : undefined
      if (type !== undefined && type !== contentTypeOf(path)?.split(';', 1)[0]) types.push([extension, type])
    }
    return Object.fromEntries(types)
  }
}

/** The same as a host file, without what every host does. */
export function hostFileOf(seen: HostSeen, site: Site): string {
  const usual = presetNamed('files')
  const said = Object.entries(seen).filter(
    ([name, value]) => JSON.stringify(value) !== JSON.stringify(usual[name as keyof HostSeen]),
  )
  const about = `As ${site.origin} was seen to answer`
  return `${JSON.stringify({ basedOn: 'files', about, ...Object.fromEntries(said) }, null, 2)}\n`
}
