import type { FileFacts } from '../model/facts.ts'
import { isDigested, isHashed } from '../model/fingerprint.ts'
import { nameOf } from '../model/folder.ts'
import type { Reference } from '../model/reference.ts'
import type { Site } from '../model/site.ts'
import { safeDecode } from '../model/text.ts'
import { encodePath } from './addresses.ts'
import type { BundleBases, ChunkRoots } from './bundle-roots.ts'
import { isBare } from './bundle-roots.ts'
import type { FolderIndex } from './folder-index.ts'
import type { ObservedBase } from './observed-base.ts'

/** Files that are shown, played or computed with: no code has names like theirs for anything else. */
const isShown =
  /\.(?:png|jpe?g|gif|webp|avif|svg|mp4|webm|mp3|ogg|woff2?|ttf|otf|pdf|glb|gltf|hdr|ktx2|wasm|onnx|geojson|csv)$/i

/** The same for scripts of workers, but for service workers, which libraries name. */
function isWorker(name: string): boolean {
  return /\.m?js$/.test(name) && /worker/i.test(name) && !/service-?worker/i.test(name)
}

/** Files that run nothing and that no element needs: only what reads them makes something of the names in them. */
const isData: ReadonlySet<FileFacts['kind']> = new Set(['data', 'text', 'other'])

/** What references are resolved with. */
export interface ResolvingWith {
  readonly site: Site
  readonly index: FolderIndex
  readonly observed: ObservedBase | null
  readonly bases: BundleBases
  readonly roots: ChunkRoots
}

/** Turns references into paths of this site. Most URLs of a site are written over and over: each is resolved once. */
export class Resolver {
  readonly #at: ResolvingWith
  readonly #absolute = new Map<string, string | null>()
  #relative = new Map<string, string | null>()
  #relativeTo = ''
  readonly #ofThisBuild = new Map<string, boolean>()

  /** What addresses of this origin begin with. */
  readonly #own: string

  constructor(resolvingWith: ResolvingWith) {
    this.#at = resolvingWith
    this.#own = `${resolvingWith.site.origin}/`
  }

  /**
   * The path, percent-encoded, that a browser asks this site for; null when it asks another origin or nobody.
   * @param base what the document's URLs start from: its address, or its `<base>`
   */
  pathOf(file: FileFacts, reference: Reference, base: string): string | null {
    const { raw, kind, against } = reference
    if (kind === 'named') return this.#named(reference, file, base)
    if (against === 'site') return this.#resolve(raw, this.#at.site.address)
    if (against === 'bundle-base' && !raw.startsWith('.')) {
      const { site, observed, bases } = this.#at
      const start = bases.for(file.path) ?? observed?.base ?? site.base
      return this.#resolve(raw, URL.canParse(start, site.address) ? new URL(start, site.address).href : base)
    }
    return this.#resolve(raw, base)
  }

  /** The path that a link leads to on this site; null where it leads elsewhere. */
  linkOf(raw: string, base: string): string | null {
    return this.#resolve(raw, base)
  }

  #resolve(raw: string, base: string): string | null {
    // From a base on another origin, an absolute path leads there too.
    const own = base.startsWith(this.#own)
    const absolute = own && isRooted(raw)
    let known = this.#absolute
    if (!absolute) {
      const directory = base.slice(0, base.lastIndexOf('/') + 1)
      if (!own || keepsLastStep(raw)) return this.#parse(raw, base)
      if (directory !== this.#relativeTo) {
        this.#relativeTo = directory
        this.#relative = new Map()
      }
      known = this.#relative
    }
    const before = known.get(raw)
    if (before !== undefined) return before
    const path = this.#parse(raw, base)
    known.set(raw, path)
    return path
  }

  #parse(raw: string, base: string): string | null {
    if (!URL.canParse(raw, base)) return null
    const url = new URL(raw, base)
    return url.origin === this.#at.site.origin ? url.pathname : null
  }

  /** A string that looks like a file counts when it names one, or when it could be nothing else. */
  #named({ raw, sure }: Reference, file: FileFacts, base: string): string | null {
    const { site, index, observed, roots } = this.#at
    if (isBare(raw)) {
      const meant = roots.fileOf(raw, file.path)
      return meant === null ? null : site.base + encodePath(meant)
    }
    const from = file.kind === 'page' ? base : raw.startsWith('.') ? base : site.address
    const pathname = this.#parse(raw, from)
    if (pathname === null) return null
    if (!raw.startsWith('/') && !raw.includes('://')) return this.#relativeName(pathname, raw)
    const tail = index.tailOf(pathname)
    // `endsWith("/index.txt")` names a file by chance; only the build's own base path, or an element, makes it one.
    if (tail && (sure || tail.prefix === observed?.base)) return pathname
    // Below a path nothing else is called like a picture of this folder, from the top of the host.
    if (tail?.prefix === '/' && site.base !== '/' && (isShown.test(tail.file) || isWorker(nameOf(tail.file))))
      return pathname
    const below = observed?.base ?? site.base
    if (!pathname.startsWith(below)) return null
    const path = safeDecode(pathname.slice(below.length))
    const emitted = isDigested(path) || index.isOfKind(path)
    // A link in a script may lead to what another program of the host serves.
    const needed = sure && !/\.html?$/i.test(path)
    return needed || (emitted && this.#isOfThisBuild(file)) ? pathname : null
  }

  /** Whether data speaks of this build: a report, a log or an index may list the files of another one, none of which is here. */
  #isOfThisBuild(file: FileFacts): boolean {
    if (!isData.has(file.kind)) return true
    const known = this.#ofThisBuild.get(file.path)
    if (known !== undefined) return known
    const { index, site } = this.#at
    let isOwn = false
    for (const { raw } of file.references) {
      const tail = isHashed(raw) ? index.tailOf(this.#parse(raw, site.address) ?? '') : null
      isOwn ||= tail !== null && isHashed(tail.file)
    }
    this.#ofThisBuild.set(file.path, isOwn)
    return isOwn
  }

  /** `./x.js` in a script: relative to the script, or to the page that runs it. */
  #relativeName(pathname: string, raw: string): string | null {
    const { site, index } = this.#at
    const isFile = (path: string | null): path is string =>
      path?.startsWith(site.base) === true && index.has(safeDecode(path.slice(site.base.length)))
    if (isFile(pathname)) return pathname
    const fromTop = this.#parse(raw, site.address)
    return isFile(fromTop) ? fromTop : null
  }
}

/** Whether a reference may be the base's own path: a query, a fragment, nothing at all, blanks before them, or a scheme alone. */
function keepsLastStep(raw: string): boolean {
  const first = raw.charCodeAt(0)
  if (first === 104 || first === 72) return /^https?:(?![/\\])/i.test(raw)
  return !(first > 32) || first === 35 || first === 63
}

/** Whether a URL starts from the top of its origin, wherever it is written. */
export function isRooted(raw: string): boolean {
  return raw.charCodeAt(0) === 47 && raw.charCodeAt(1) !== 47
}
