import { contentTypeOf } from '../../model/content-type.ts'
import { extensionOf, nameOf } from '../../model/folder.ts'
import type { Place } from '../../model/reading.ts'
import { wellFormed } from '../../model/text.ts'
import type { SentByServer, Unclear, Way } from '../sent.ts'
import type { Block } from './block.ts'
import { keptForOf } from './kept.ts'
import { add, type Merged, nothingSaid } from './merged.ts'
import type { Pass } from './read.ts'
import { type Rewritable, type Rewritten, rewrite } from './rewriting.ts'
import type { RewriteRule } from './rules.ts'

/** What httpd sends, with what decided. */
export interface Sent extends Omit<SentByServer, 'rule'> {
  readonly by: { readonly what: string; readonly place: Place } | null
}

/** A server's configuration as requests meet it. */
export interface Served {
  readonly root: string
  /** Paths that stand for directories elsewhere, the longest first. */
  readonly aliases: readonly { readonly path: string; readonly directory: string; readonly place: Place }[]
  /** Rules that come before a path is a file's. */
  readonly rules: readonly RewriteRule[]
  readonly passes: readonly Pass[]
  readonly locations: readonly { readonly fits: (path: string) => boolean; readonly block: Block }[]
  /** What holds everywhere. */
  readonly outside: Block | null
  /** What holds in a directory, from the outermost one. */
  readonly blocksAt: (directory: string) => readonly Block[]
  readonly kindOf: (path: string) => 'file' | 'directory' | null
  readonly host: string
  readonly scheme: 'http' | 'https'
}

/** As often as httpd goes round by itself. */
const mostTurns = 10

interface Asked {
  readonly uri: string
  /** Rules are tried no more. */
  readonly isEnd: boolean
  readonly way: Way
}

/** Answers one request as httpd does. */
export class HttpdRequest {
  readonly #served: Served
  readonly #asked: string
  #turns = 0
  #error: number | null = null
  #unclear: Unclear | null = null
  #by: Sent['by'] = null

  constructor(served: Served, uri: string) {
    this.#served = served
    this.#asked = uri
  }

  answer(): Sent {
    return this.#serve({ uri: this.#asked, isEnd: false, way: 'own' })
  }

  /** What comes for a path that is refused before any rule. */
  refusal(): Sent {
    const merged = nothingSaid()
    if (this.#served.outside) add(merged, { ...this.#served.outside, rewrites: null }, '')
    return this.#fail(404, merged)
  }

  #serve({ uri, isEnd, way }: Asked): Sent {
    if (++this.#turns > mostTurns) return this.#send(500, null, nothingSaid(), { way: 'error' })
    const { rules, outside } = this.#served
    const merged = nothingSaid()
    if (outside) add(merged, { ...outside, rewrites: null }, '')
    const early = isEnd ? null : rewrite(rules, { path: uri, rest: '', prefix: '' }, this.#sees(uri, uri))
    if (early) return this.#early(early, merged, way)
    const redirected = this.#redirected(merged, uri) ?? this.#passed(merged, uri)
    if (redirected) return redirected
    return this.#ofFile(this.#mapped(uri), uri, merged, { isEnd, way })
  }

  /** What rules of the server as a whole decide: a path of their own is one of the document root. */
  #early(made: Rewritten, merged: Merged, way: Way): Sent {
    const ended = this.#ended(made, merged)
    if (ended) return ended
    this.#decided('RewriteRule', made.rule.place)
    const path = made.path ?? ''
    const file = made.rule.flags.has('PT') ? this.#mapped(path) : this.#served.root + path
    return this.#ofFile(this.#served.kindOf(path) === null ? file : path, path, merged, {
      isEnd: made.isEnd,
      way: wayOf(made.rule, way),
    })
  }

  #ended(made: Rewritten, merged: Merged): Sent | null {
    this.#by = { what: 'RewriteRule', place: made.rule.place }
    if (made.isPassed) return this.#send(200, null, merged, { way: 'passed' })
    if (made.status === null) return null
    if (made.status >= 400 || made.path === null) return this.#fail(made.status, merged)
    const target = merged.rewrites?.base ? this.#urlOf(made.path, merged) : made.path
    const path = made.rule.flags.has('NE') ? target : escaped(target)
    return this.#send(made.status, null, merged, { way: 'rule', location: this.#absolute(path) })
  }

  #redirected(merged: Merged, uri: string): Sent | null {
    for (const { status, from, to, place } of merged.redirects) {
      const match = typeof from === 'string' ? null : from.exec(uri)
      const rest = typeof from === 'string' ? restBelow(from, uri) : null
      if (!match && rest === null) continue
      this.#by = { what: 'Redirect', place }
      if (to === null || status < 300 || status >= 400) return this.#fail(status, merged)
      const target = match ? to.replace(/\$(\d)/g, (_, group) => match[Number(group)] ?? '') : to + rest
      return this.#send(status, null, merged, { way: 'rule', location: this.#absolute(escaped(target)) })
    }
    return null
  }

  /** What another server answers. */
  #passed(merged: Merged, uri: string): Sent | null {
    const found = this.#served.passes.find(({ from }) =>
      typeof from === 'string' ? restBelow(from, uri) !== null : from.test(uri),
    )
    if (!found || found.isExcluded) return null
    this.#decided('ProxyPass', found.place)
    return this.#send(200, null, merged, { way: 'passed' })
  }

  #mapped(uri: string): string {
    const { aliases, root } = this.#served
    for (const { path, directory } of aliases) {
      const rest = restBelow(path, uri)
      if (rest !== null) return directory + rest
    }
    return root + uri
  }

  /** The file of a path, the blocks of its directories, and what these make of it. */
  #ofFile(path: string, uri: string, merged: Merged, { isEnd, way }: Pick<Asked, 'isEnd' | 'way'>): Sent {
    const { kindOf, blocksAt } = this.#served
    const { directories, file, rest } = this.#walk(path)
    for (const directory of directories)
      for (const block of blocksAt(directory)) add(merged, block, directory)
    for (const { fits, block } of merged.files.slice())
      if (fits(nameOf(file))) add(merged, { ...block, files: [] }, '')
    for (const { fits, block } of this.#served.locations)
      if (fits(uri)) add(merged, { ...block, rewrites: null }, '')
    const [unclear] = merged.unclear
    if (unclear) this.#unclear ??= unclear
    if (merged.isDenied) return this.#fail(403, merged)
    const kind = kindOf(file)
    const made = isEnd ? null : this.#inDirectory(file, rest, uri, merged)
    if (made) {
      const ended = this.#ended(made, merged)
      if (ended) return ended
      if (kind === 'directory' && !uri.endsWith('/') && merged.addsSlash)
        return this.#ofDirectory(file, uri, merged, { isEnd, way })
      const next = this.#urlOf(made.path ?? '', merged)
      return this.#serve({ uri: next, isEnd: made.isEnd, way: wayOf(made.rule, way) })
    }
    const inner = nothingSaid()
    inner.redirects = directories
      .flatMap((directory) => blocksAt(directory).flatMap(({ redirects }) => redirects))
      .reverse()
    inner.errorDocuments = merged.errorDocuments
    const redirected = this.#redirected(inner, uri)
    if (redirected) return redirected
    if (kind === 'directory') return this.#ofDirectory(file, uri, merged, { isEnd, way })
    if (kind === 'file') return rest === '' ? this.#send(200, file, merged, { way }) : this.#fail(404, merged)
    return this.#fallback(merged) ?? this.#fail(404, merged)
  }

  /** The directories on the way to a path that are there, the first step that is not one, and what is behind it. */
  #walk(path: string): { directories: string[]; file: string; rest: string } {
    const { kindOf } = this.#served
    const steps = path.split('/').filter((step) => step !== '')
    const directories = ['']
    let at = ''
    for (const [index, step] of steps.entries()) {
      const next = `${at}/${step}`
      if (kindOf(next) !== 'directory') {
        const behind = steps
          .slice(index + 1)
          .map((each) => `/${each}`)
          .join('')
        return { directories, file: next, rest: behind + (path.endsWith('/') ? '/' : '') }
      }
      at = next
      directories.push(at)
    }
    return { directories, file: at, rest: '' }
  }

  #inDirectory(file: string, rest: string, uri: string, { rewrites }: Merged): Rewritten | null {
    if (!rewrites?.isOn) return null
    const { rules, directory } = rewrites
    const isDirectory = this.#served.kindOf(file) === 'directory'
    const hasSlash = uri.endsWith('/')
    // A directory requested without its slash is sent on first.
    if (isDirectory && file === directory && !hasSlash) return null
    const path = isDirectory && hasSlash ? `${file}/` : file
    const made = rewrite(rules, { path, rest, prefix: `${directory}/` }, this.#sees(file, uri))
    const isSame = made?.path === path && made.status === null && !made.isPassed
    return isSame ? null : made
  }

  /** A path of the disk as the address that leads to it. */
  #urlOf(path: string, { rewrites }: Merged): string {
    const { root } = this.#served
    if (rewrites?.base && path.startsWith(`${rewrites.directory}/`))
      return rewrites.base.replace(/\/$/, '') + path.slice(rewrites.directory.length)
    if (path.startsWith(`${root}/`)) return path.slice(root.length)
    const alias = this.#served.aliases.find(({ directory }) => restBelow(directory, path) !== null)
    return alias ? alias.path + path.slice(alias.directory.length) : path
  }

  #ofDirectory(file: string, uri: string, merged: Merged, asked: Pick<Asked, 'isEnd' | 'way'>): Sent {
    if (!uri.endsWith('/')) {
      if (!merged.addsSlash) return this.#fail(merged.listsFiles ? 200 : 403, merged)
      return this.#send(301, null, merged, { way: 'rule', location: this.#absolute(`${escaped(uri)}/`) })
    }
    for (const name of merged.index) {
      if (name === 'disabled') continue
      if (name.startsWith('/')) return this.#serve({ ...asked, uri: name, way: 'internal' })
      if (this.#served.kindOf(`${file}/${name}`) !== 'file') {
        // It is looked for as a request of its own, which rules or a fallback may answer.
        const isRewritten = this.#inDirectory(`${file}/${name}`, '', uri + name, merged) !== null
        const fallback = isRewritten ? null : this.#fallback(merged)
        if (fallback) return fallback
        continue
      }
      const inner = nothingSaid()
      if (this.#served.outside) add(inner, { ...this.#served.outside, rewrites: null }, '')
      return this.#ofFile(`${file}/${name}`, uri + name, inner, asked)
    }
    return merged.listsFiles ? this.#send(200, null, merged, { way: 'rule' }) : this.#fail(403, merged)
  }

  #fallback(merged: Merged): Sent | null {
    const { fallback } = merged
    if (fallback === null || fallback === 'disabled') return null
    const file = this.#mapped(fallback)
    if (this.#served.kindOf(file) === 'file') return this.#send(200, file, merged, { way: 'internal' })
    const around = nothingSaid()
    for (const directory of this.#walk(file).directories)
      for (const block of this.#served.blocksAt(directory)) add(around, block, directory)
    // One that is not there, and falls back on itself, is looked for again and again.
    return around.fallback === null ? null : this.#fail(500, merged)
  }

  /** An error: its document, or the server's own page. */
  #fail(status: number, merged: Merged): Sent {
    const page = this.#error === null ? merged.errorDocuments.get(status) : undefined
    if (page === undefined || (!page.startsWith('/') && !URL.canParse(page)))
      return this.#send(this.#error ?? status, null, merged, { way: 'error' })
    if (!page.startsWith('/')) return this.#send(302, null, merged, { way: 'rule', location: page })
    this.#error = status
    return this.#serve({ uri: page, isEnd: false, way: 'error' })
  }

  #send(
    status: number,
    file: string | null,
    merged: Merged,
    { way, location = null }: { readonly way: Way; readonly location?: string | null },
  ): Sent {
    const shown = this.#error !== null && (file !== null || status < 300) ? this.#error : status
    const contentType = file === null ? null : typeOf(file, merged)
    const keptFor = shown < 400 && file !== null ? keptForOf(merged, contentType) : null
    return { status: shown, file, contentType, location, keptFor, way, by: this.#by, unclear: this.#unclear }
  }

  #absolute(location: string): string {
    const { scheme, host } = this.#served
    return location.startsWith('/') ? `${scheme}://${host}${location}` : location
  }

  #decided(what: string, place: Place): void {
    this.#by = { what, place }
  }

  #sees(file: string, uri: string): Rewritable {
    const { host, scheme, root, kindOf } = this.#served
    const known: Readonly<Record<string, string>> = {
      REQUEST_URI: uri,
      REQUEST_FILENAME: file,
      SCRIPT_FILENAME: file,
      DOCUMENT_ROOT: root,
      HTTP_HOST: host,
      SERVER_NAME: host,
      HTTPS: scheme === 'https' ? 'on' : 'off',
      REQUEST_SCHEME: scheme,
      SERVER_PORT: scheme === 'https' ? '443' : '80',
      REQUEST_METHOD: 'GET',
      QUERY_STRING: '',
      THE_REQUEST: `GET ${escaped(this.#asked)} HTTP/1.1`,
      'ENV:REDIRECT_STATUS': this.#turns > 1 ? '200' : '',
      'HTTP:X-Forwarded-Proto': scheme,
      'HTTP:X-Forwarded-Protocol': scheme,
      'HTTP:Accept-Encoding': 'gzip, deflate, br',
      HTTP_USER_AGENT: 'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 Chrome/140.0.0.0 Safari/537.36',
      HTTP_ACCEPT: 'text/html,*/*;q=0.8',
      HTTP_REFERER: '',
      HTTP_COOKIE: '',
    }
    return {
      variable: (name) => (Object.hasOwn(known, name) ? (known[name] ?? null) : null),
      kindOf,
      unclear: (what) => {
        this.#unclear ??= what
      },
    }
  }
}

function wayOf({ target }: RewriteRule, before: Way): Way {
  if (before === 'error') return before
  return /[$%]\d/.test(target) ? 'rule' : 'internal'
}

/** What of a path is below another; null where it is not. */
function restBelow(path: string, uri: string): string | null {
  if (!uri.startsWith(path)) return null
  const rest = uri.slice(path.length)
  return rest === '' || rest.startsWith('/') || path.endsWith('/') ? rest : null
}

function escaped(path: string): string {
  return encodeURI(wellFormed(path)).replace(/[?#]/g, encodeURIComponent)
}

function typeOf(file: string, { types }: Merged): string | null {
  return types.get('*') ?? types.get(extensionOf(file)) ?? contentTypeOf(file)
}
