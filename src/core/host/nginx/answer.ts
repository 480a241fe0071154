import { wellFormed } from '../../model/text.ts'
import type { DiskKind } from '../disk.ts'
import type { SentByServer, Unclear, Way } from '../sent.ts'
import { serverPattern } from '../server-pattern.ts'
import { holds } from './conditions.ts'
import type { Directive } from './directives.ts'
import { locate } from './locations.ts'
import type { NginxServer } from './read.ts'
import { type Context, innerContext, isStep } from './server.ts'
import { keptFor } from './settings.ts'
import { Variables } from './variables.ts'

/** What nginx sends, with the directive or the block that decided. */
export interface Sent extends Omit<SentByServer, 'rule'> {
  readonly by: Directive | Context | null
}

/** As often as nginx does: more changes of the path are a circle. */
const mostChanges = 11

/** What ends a stage: an answer, or a path that another place answers. */
type End = { readonly sent: Sent } | { readonly again: 'server' | 'location' }

/** Answers one request as nginx does, phase by phase. */
export class NginxRequest {
  readonly #server: NginxServer
  readonly #host: string
  readonly #kindOf: (path: string) => DiskKind
  readonly #variables: Variables
  readonly #asked: string
  #uri = ''
  #args = ''
  #changes = mostChanges
  #isInternal = false
  #isOfError = false
  #errorStatus: number | null = null
  #at: Context
  #named: Context | null = null
  #by: Sent['by'] = null
  #way: Way = 'own'
  #unclear: Unclear | null = null

  constructor(
    server: NginxServer,
    host: string,
    kindOf: (path: string) => DiskKind,
    path: string,
    query: string,
  ) {
    this.#server = server
    this.#host = host
    this.#kindOf = kindOf
    this.#at = server.top
    this.#args = query
    this.#asked = query === '' ? path : `${path}?${query}`
    this.#variables = new Variables((name) => this.#own(name), server.maps)
  }

  /** @param uri the path, decoded, with one slash where there were several */
  answer(uri: string): Sent {
    this.#uri = uri
    let next: 'server' | 'location' = 'server'
    for (;;) {
      const end: End = next === 'server' ? this.#fromServer() : this.#fromLocation()
      if ('sent' in end) return end.sent
      next = end.again
    }
  }

  /** The block that answers for a path, and where the disk has what stands there. */
  placeOf(uri: string): { readonly context: Context; readonly path: string } {
    this.#uri = uri
    this.#find()
    return { context: this.#at, path: this.#pathOf(uri) }
  }

  #fromServer(): End {
    this.#at = this.#server.top
    return this.#run(this.#at) ?? this.#fromLocation()
  }

  /** The location of the path, and what it does with it. */
  #fromLocation(): End {
    if (this.#named) {
      this.#enter(this.#named)
      this.#named = null
    } else {
      const redirect = this.#find()
      if (redirect) return redirect
      if (this.#at.isInternal && !this.#isInternal) return this.#fail(404, this.#at)
    }
    const stepped = this.#run(this.#at)
    if (stepped) return stepped
    if (this.#isChanged) {
      if (--this.#changes === 0) return this.#fail(500, this.#at)
      return { again: 'location' }
    }
    if (this.#at.isDenied) return this.#fail(403, this.#at)
    return this.#tryFiles() ?? this.#content()
  }

  #enter(context: Context): void {
    this.#at = context
    if (context.unclear) this.#unclear ??= context.unclear
  }

  /** Goes to the location of the path; what it answers at once, where it does. */
  #find(): End | null {
    const { top } = this.#server
    const { location, addsSlash, unclear, match } = locate(top, this.#uri)
    if (match) this.#variables.matched(match)
    if (unclear) this.#unclear ??= unclear
    this.#enter(location ?? top)
    if (!addsSlash || !location) return null
    return this.#redirect(301, `${this.#uri}/${this.#args ? `?${this.#args}` : ''}`, location)
  }

  #isChanged = false

  /** The steps of a block. Those of an `if` that holds go on in it. */
  #run(context: Context): End | null {
    this.#isChanged = false
    const end = this.#runSteps(context.steps)
    return end === 'break' ? null : end
  }

  #runSteps(steps: readonly Directive[]): End | 'break' | null {
    for (const step of steps) {
      const end = this.#step(step)
      if (end) return end
    }
    return null
  }

  #step(step: Directive): End | 'break' | null {
    const { name, args } = step
    if (name === 'break') return 'break'
    if (name === 'set') {
      this.#variables.set((args[0] ?? '').replace(/^\$/, ''), this.#variables.expand(args[1] ?? ''))
      return null
    }
    if (name === 'return') return this.#return(step)
    if (name === 'rewrite') return this.#rewrite(step)
    const isMet = holds(args, this.#variables, this.#kindOf)
    if (isMet === null) this.#unclear ??= { what: 'if', place: step.place }
    if (isMet !== true) return null
    this.#enter(innerContext(step, this.#at))
    return this.#runSteps(step.block?.filter(isStep) ?? [])
  }

  #return(step: Directive): End {
    const [first = '', text] = step.args
    const isStatus = /^\d{3}$/.test(first)
    const status = isStatus ? Number(first) : 302
    const target = isStatus ? text : first
    if (target === undefined) return this.#fail(status, step)
    const value = this.#expand(target, step)
    if (/^30[12378]$/.test(String(status))) return this.#redirect(status, value, step)
    return this.#send({ status, file: null, location: null, way: 'rule', by: step })
  }

  #rewrite(step: Directive): End | 'break' | null {
    const [source = '', replacement = '', flag] = step.args
    const pattern = serverPattern(source, false)
    if (!pattern) this.#unclear ??= { what: `the pattern ${source}`, place: step.place }
    const match = pattern?.exec(this.#uri)
    if (!match) return null
    this.#variables.matched(match)
    const isAway = /^https?:\/\/|^\$scheme/.test(replacement) || flag === 'redirect' || flag === 'permanent'
    // Groups of a path that was encoded are encoded again where the visitor is sent on.
    const written =
      isAway && this.#asked.includes('%') ? (group: string) => encodeURI(wellFormed(group)) : undefined
    const value = this.#expand(replacement.replace(/\?$/, ''), step, written)
    const [path = '', ...own] = value.split('?')
    const args = [...own, ...(replacement.endsWith('?') || this.#args === '' ? [] : [this.#args])].join('&')
    if (isAway) {
      const location = args === '' ? path : `${path}?${args}`
      return this.#redirect(flag === 'permanent' ? 301 : 302, location, step)
    }
    this.#uri = path
    this.#args = args
    this.#isInternal = true
    this.#by = step
    this.#way = /\$\d|\$\{?uri/.test(replacement) ? 'rule' : 'internal'
    this.#isChanged = flag !== 'break'
    return flag === 'last' || flag === 'break' ? 'break' : null
  }

  #tryFiles(): End | null {
    const { tryFiles, settings } = this.#at
    if (!tryFiles) return null
    const last = tryFiles.args.at(-1) ?? ''
    for (const tried of tryFiles.args.slice(0, -1)) {
      const isDirectory = tried.endsWith('/')
      const name = this.#expand(isDirectory ? tried.slice(0, -1) : tried, tryFiles)
      const { aliased } = settings.root
      const isBelow =
        typeof aliased === 'number' && tried.includes('$') && name.startsWith(this.#uri.slice(0, aliased))
      const inside = isBelow ? name.slice(aliased) : name
      const path = this.#expand(settings.root.directory, tryFiles) + inside
      if (this.#kindOf(path) !== (isDirectory ? 'directory' : 'file')) continue
      if (aliased === null) this.#uri = name
      else if (aliased !== 'pattern') this.#uri = this.#uri.slice(0, aliased) + inside
      else if (!isDirectory) return this.#file(path)
      if (!tried.startsWith('$uri')) this.#decided(tryFiles, 'internal')
      return null
    }
    if (/^=\d{3}$/.test(last)) return this.#fail(Number(last.slice(1)), tryFiles)
    this.#decided(tryFiles, 'internal')
    return this.#goTo(this.#expand(last, tryFiles), tryFiles)
  }

  #decided(by: Directive, way: Way): void {
    this.#by = by
    this.#way = way
  }

  /** An internal redirect: to a path, or to a location by its name. */
  #goTo(target: string, by: Directive): End {
    if (--this.#changes <= 0) return this.#fail(500, by)
    this.#isInternal = true
    if (target.startsWith('@')) {
      this.#named =
        this.#server.top.inside.find(({ kind, path }) => kind === 'named' && path === target) ?? null
      return this.#named ? { again: 'location' } : this.#fail(500, by)
    }
    const at = target.indexOf('?')
    this.#uri = at < 0 ? target : target.slice(0, at)
    this.#args = at < 0 ? '' : target.slice(at + 1)
    return { again: 'server' }
  }

  #content(): End {
    const { passes, settings } = this.#at
    if (passes) {
      this.#by = passes
      return this.#send({ status: 200, file: null, location: null, way: 'passed', by: passes })
    }
    const path = this.#pathOf(this.#uri)
    if (!this.#uri.endsWith('/')) return this.#file(path)
    for (const index of settings.index) {
      const name = this.#expand(index, null)
      if (name.startsWith('/')) return this.#index(name)
      if (this.#kindOf(path + name) === 'file') return this.#index(this.#uri + name)
    }
    return this.#fail(this.#kindOf(path) === 'directory' ? 403 : 404, null)
  }

  #index(uri: string): End {
    if (--this.#changes <= 0) return this.#fail(500, null)
    this.#isInternal = true
    this.#uri = uri
    return { again: 'server' }
  }

  #pathOf(uri: string): string {
    const { directory, aliased } = this.#at.settings.root
    const root = this.#expand(directory, null)
    return aliased === 'pattern' ? root : root + (aliased === null ? uri : uri.slice(aliased))
  }

  #file(path: string): End {
    const kind = this.#kindOf(path)
    if (kind === 'file')
      return this.#send({ status: 200, file: path, location: null, way: this.#way, by: this.#by })
    if (kind === null) return this.#fail(404, null)
    return this.#redirect(301, `${this.#uri}/${this.#args ? `?${this.#args}` : ''}`, null)
  }

  #redirect(status: number, location: string, by: Sent['by']): End {
    // What nobody knows beforehand leads nowhere.
    const known = location === '' ? null : this.#absolute(location)
    return this.#send({ status, file: null, location: known, way: 'rule', by })
  }

  /** A path is sent as an address, with the port that the server itself has. */
  #absolute(location: string): string {
    const { absoluteRedirect, portInRedirect, serverNameInRedirect } = this.#at.settings
    if (!location.startsWith('/') || location.startsWith('//') || !absoluteRedirect) return location
    const { scheme, port, names } = this.#server
    const isUsual = port === (scheme === 'https' ? 443 : 80)
    const host = serverNameInRedirect ? (names[0] ?? this.#host) : this.#host
    return `${scheme}://${host}${portInRedirect && !isUsual ? `:${port}` : ''}${location}`
  }

  /** An error: the page that is set for it, or the server's own. */
  #fail(status: number, by: Sent['by']): End {
    this.#errorStatus = status
    const { errorPages, isRecursive } = this.#at.settings
    const page = errorPages.find(({ codes }) => codes.includes(status))
    if (!page || this.#isOfError || this.#changes <= 0)
      return this.#send({ status, file: null, location: null, way: 'error', by: by ?? this.#by })
    if (!isRecursive) this.#isOfError = true
    if (page.status !== null) this.#errorStatus = page.status
    const target = this.#expand(page.target, null)
    this.#way = page.status !== null && page.status < 400 ? 'internal' : 'error'
    this.#by = by ?? this.#by
    if (/^[/@]/.test(target)) return this.#goTo(target, pageDirective(page.target))
    const own = page.status ?? 302
    this.#errorStatus = null
    return this.#send({
      status: /^30[12378]$/.test(String(own)) ? own : 302,
      file: null,
      location: target,
      way: 'rule',
      by,
    })
  }

  #send(answer: Omit<Sent, 'unclear' | 'contentType' | 'keptFor'>): End {
    const isSent = answer.status < 300
    const status = isSent && this.#errorStatus ? this.#errorStatus : answer.status
    const contentType =
      answer.file === null ? (answer.status >= 300 ? 'text/html' : null) : this.#typeOf(this.#uri)
    return {
      sent: {
        ...answer,
        status,
        contentType,
        keptFor: this.#keptFor(status, contentType),
        unclear: this.#unclear,
      },
    }
  }

  #keptFor(status: number, contentType: string | null): number | null {
    const { expires, cacheControl } = this.#at.settings
    if (status >= 400) return null
    this.#variables.set('sent_http_content_type', contentType ?? '')
    const of = (text: string): string => this.#variables.expand(text) ?? ''
    return keptFor(expires === null ? null : of(expires), cacheControl.map(of))
  }

  #typeOf(uri: string): string {
    const { types, defaultType } = this.#at.settings
    const name = uri.slice(uri.lastIndexOf('/') + 1)
    const dot = name.lastIndexOf('.')
    const known = dot < 0 ? undefined : types.get(name.slice(dot + 1).toLowerCase())
    return known ?? defaultType
  }

  #expand(text: string, by: Directive | null, written?: (group: string) => string): string {
    const value = this.#variables.expand(text, written)
    if (value === null) this.#unclear ??= { what: text, place: by?.place ?? this.#at.place }
    return value ?? ''
  }

  #own(name: string): string | undefined {
    const { settings } = this.#at
    switch (name) {
      case 'uri':
      case 'document_uri':
        return this.#uri
      case 'request_uri':
        return this.#asked
      case 'args':
      case 'query_string':
        return this.#args
      case 'is_args':
        return this.#args === '' ? '' : '?'
      case 'host':
      case 'http_host':
        return this.#host
      case 'scheme':
        return this.#server.scheme
      case 'https':
        return this.#server.scheme === 'https' ? 'on' : ''
      case 'server_port':
        return String(this.#server.port)
      case 'server_name':
        return this.#server.names[0] ?? ''
      case 'document_root':
      case 'realpath_root':
        return settings.root.directory
      case 'request_filename':
        return this.#pathOf(this.#uri)
      default:
        return name.startsWith('arg_')
          ? (new URLSearchParams(this.#args).get(name.slice(4)) ?? '')
          : undefined
    }
  }
}

function pageDirective(target: string): Directive {
  return {
    name: 'error_page',
    args: [target],
    block: null,
    source: '',
    place: { file: '', line: 0, column: 0 },
  }
}
