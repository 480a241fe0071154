import type { Place } from '../../model/reading.ts'
import type { Unclear } from '../sent.ts'
import { serverPattern } from '../server-pattern.ts'
import { type Broken, type Directive, directivesIn } from './directives.ts'
import { harmless, isOwnFile } from './known.ts'
import { type Context, contextOf } from './server.ts'
import { inherited, type Settings, settingsOutside } from './settings.ts'

/** A variable whose value is looked up by another: `map`. */
export interface MapVariable {
  readonly name: string
  readonly source: string
  readonly byValue: ReadonlyMap<string, string>
  readonly byPattern: readonly { readonly pattern: RegExp; readonly value: string }[]
  readonly usual: string
}

/** Where the folder is on the server's disk, and what puts it there. */
export interface Mount {
  readonly directory: string
  readonly place: Place
}

/** A server's configuration, with where the folder is on its disk when that is known. */
export interface NginxHost {
  readonly kind: 'nginx'
  readonly file: string
  /** What stands around the server blocks, these included; the inside of one where there are none. */
  readonly around: readonly Directive[]
  readonly outside: Settings
  readonly broken: readonly Broken[]
  readonly mount: Mount | null
}

/** The server block that answers for a site. */
export interface NginxServer {
  readonly top: Context
  readonly names: readonly string[]
  readonly scheme: 'http' | 'https'
  readonly port: number
  readonly maps: readonly MapVariable[]
  /** Whatever in it a model can't follow. */
  readonly unclear: readonly Unclear[]
}

/** The files that an `include` names, of those at hand. */
export type Include = (
  pattern: string,
) => Promise<readonly { readonly file: string; readonly text: string }[]>

const mostFiles = 50

/**
 * Reads a configuration with what it includes. A file without server blocks is read as the inside of one.
 * @param mount where the folder is on the server's disk, when that is known
 */
export async function readNginx(
  file: string,
  text: string,
  include: Include,
  mount: Mount | null,
): Promise<NginxHost> {
  const reader = new Reader(include)
  const all = await reader.read(file, text)
  const http = all.filter(({ name }) => name === 'http').flatMap(({ block }) => block ?? [])
  const isWhole = http.length > 0
  const outside = inherited(settingsOutside(!isWhole), http, { kind: 'http', path: '' })
  return { kind: 'nginx', file, around: isWhole ? http : all, outside, broken: reader.broken, mount }
}

const servers = new WeakMap<NginxHost, Map<string, NginxServer>>()

/** The server block that answers for an origin. */
export function serverFor(host: NginxHost, origin: string): NginxServer {
  const known = servers.get(host) ?? new Map<string, NginxServer>()
  servers.set(host, known)
  const server = known.get(origin) ?? read(host, new URL(origin))
  known.set(origin, server)
  return server
}

function read({ file, around, outside, broken }: NginxHost, { hostname, protocol }: URL): NginxServer {
  const blocks = around.filter(({ name }) => name === 'server')
  const inside: Directive = {
    name: 'server',
    args: [],
    block: around,
    source: '',
    place: { file, line: 1, column: 1 },
  }
  const chosen = chosenOf(blocks, hostname, protocol === 'https:') ?? inside
  const listens = listensOf(chosen)
  const secure = listens.find(({ isSecure }) => isSecure)
  const own = (protocol === 'https:' ? secure : null) ?? listens.find(({ isSecure }) => !isSecure) ?? secure
  return {
    top: contextOf(chosen, outside, null),
    names: namesOf(chosen),
    scheme: own?.isSecure ? 'https' : 'http',
    port: own?.port ?? 80,
    maps: around.filter(({ name }) => name === 'map').flatMap(mapOf),
    unclear: [...broken, ...unclearIn(chosen.block ?? [])],
  }
}

/** Puts files in the place of the directives that include them. */
class Reader {
  readonly broken: Broken[] = []
  readonly #include: Include
  #files = 0

  constructor(include: Include) {
    this.#include = include
  }

  async read(file: string, text: string): Promise<Directive[]> {
    const { directives, broken } = directivesIn(file, text)
    if (broken) this.broken.push(broken)
    return this.#expanded(directives)
  }

  async #expanded(directives: readonly Directive[]): Promise<Directive[]> {
    const found: Directive[] = []
    for (const each of directives) {
      if (each.name === 'include') found.push(...(await this.#included(each)))
      else found.push(each.block ? { ...each, block: await this.#expanded(each.block) } : each)
    }
    return found
  }

  async #included(directive: Directive): Promise<Directive[]> {
    const [pattern = ''] = directive.args
    if (isOwnFile(pattern) || this.#files >= mostFiles) return [directive]
    const files = await this.#include(pattern)
    this.#files += files.length
    const inside: Directive[] = []
    for (const { file, text } of files) inside.push(...(await this.read(file, text)))
    return files.length > 0 ? inside : [directive]
  }
}

interface Listen {
  readonly port: number
  readonly isSecure: boolean
  readonly isDefault: boolean
}

function listensOf({ block }: Directive): Listen[] {
  const said = (block ?? []).filter(({ name }) => name === 'listen')
  return said.flatMap(({ args: [address = '', ...options] }) => {
    const [, port] = /(?:^|:)(\d+)$/.exec(address) ?? []
    if (address.startsWith('unix:')) return []
    const isSecure = options.includes('ssl') || options.includes('quic')
    return [{ port: Number(port ?? 80), isSecure, isDefault: options.includes('default_server') }]
  })
}

function namesOf({ block }: Directive): string[] {
  return (block ?? []).filter(({ name }) => name === 'server_name').flatMap(({ args }) => args)
}

/** The server that answers for a host: by its name, as nginx looks for it, and for the scheme where only one block has that. */
function chosenOf(all: readonly Directive[], host: string, isSecure: boolean): Directive | null {
  const isFor = (server: Directive): boolean => {
    const listens = listensOf(server)
    return listens.length === 0 || listens.some((listen) => listen.isSecure === isSecure)
  }
  const some = all.filter(isFor)
  const servers = some.length > 0 ? some : all
  const named = (matches: (name: string) => boolean): Directive | undefined =>
    servers.find((server) => namesOf(server).some(matches))
  return (
    named((name) => name.toLowerCase() === host) ??
    named((name) => name.startsWith('*.') && host.endsWith(name.slice(1))) ??
    named((name) => name.startsWith('.') && (host === name.slice(1) || host.endsWith(name))) ??
    named((name) => name.endsWith('.*') && host.startsWith(name.slice(0, -1))) ??
    named((name) => name.startsWith('~') && (serverPattern(name.slice(1), false)?.test(host) ?? false)) ??
    // Nobody names it: of those for any name, the one that has files.
    servers.find((server) => isDefault(server) && servesFiles(server)) ??
    servers.find(servesFiles) ??
    servers.find(isDefault) ??
    servers[0] ??
    null
  )
}

function isDefault(server: Directive): boolean {
  return listensOf(server).some((listen) => listen.isDefault)
}

/** Whether anything in a block is about files; one that sends every request elsewhere describes no host of them. */
function servesFiles({ block }: Directive): boolean {
  const inside = block ?? []
  if (inside.some(({ name }) => name === 'return')) return false
  return inside.some((each) => /^(?:root|alias|try_files)$/.test(each.name) || servesFiles(each))
}

function mapOf({ args: [source = '', variable = ''], block }: Directive): MapVariable[] {
  const byValue = new Map<string, string>()
  const byPattern: { pattern: RegExp; value: string }[] = []
  let usual = ''
  for (const { name, args } of block ?? []) {
    const value = args[0] ?? ''
    if (name === 'default') usual = value
    else if (/^(?:hostnames|volatile|include)$/.test(name) && args.length < 2 && name !== 'include') continue
    else if (name.startsWith('~')) {
      const pattern = serverPattern(name.replace(/^~\*?/, ''), name.startsWith('~*'))
      // An entry that can't be tried makes the whole of it unknown.
      if (!pattern) return []
      byPattern.push({ pattern, value })
    } else byValue.set(name.replace(/^\\/, ''), value)
  }
  return variable.startsWith('$') ? [{ name: variable.slice(1), source, byValue, byPattern, usual }] : []
}

/** Everything in a server that may change an answer in a way that is not followed. */
function unclearIn(block: readonly Directive[]): Unclear[] {
  const steps = /^(?:rewrite|return|set|if|break|limit_except|types|include|add_before_body)$/
  return block.flatMap(({ name, args, block: inside, place }: Directive): Unclear[] => {
    if (name === 'include')
      return isOwnFile(args[0] ?? '') ? [] : [{ what: `include ${args[0] ?? ''}`, place }]
    const own = steps.test(name) || harmless(name) ? [] : [{ what: name, place: place satisfies Place }]
    return [...own, ...(inside && name !== 'types' ? unclearIn(inside) : [])]
  })
}
