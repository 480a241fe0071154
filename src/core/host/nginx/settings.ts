import type { Directive } from './directives.ts'
import { builtInTypes, type Types, typesOf, usualTypes } from './types.ts'

/** Where files are, and how a path becomes one of theirs. */
export interface Root {
  /** As it is written, with its variables. */
  readonly directory: string
  /** How much of the path an alias stands for; null for a root, and for the alias of a pattern, which is the file itself. */
  readonly aliased: number | 'pattern' | null
}

/** What answers an error. */
export interface ErrorPage {
  readonly codes: readonly number[]
  /** The status that is sent in its place; null to keep it, 0 for the one of the answer. */
  readonly status: number | null
  /** A path, a name, or an address. */
  readonly target: string
}

/** What blocks inside others inherit. */
export interface Settings {
  readonly root: Root
  readonly index: readonly string[]
  readonly errorPages: readonly ErrorPage[]
  readonly isRecursive: boolean
  readonly absoluteRedirect: boolean
  readonly portInRedirect: boolean
  readonly serverNameInRedirect: boolean
  readonly types: Types
  readonly defaultType: string
  /** As it is written; null where nothing is said. */
  readonly expires: string | null
  /** What `Cache-Control` is set to, one by one. */
  readonly cacheControl: readonly string[]
}

/** @param hasTypes whether the types are those of nginx's own `mime.types` */
export function settingsOutside(hasTypes: boolean): Settings {
  return {
    root: { directory: 'html', aliased: null },
    index: ['index.html'],
    errorPages: [],
    isRecursive: false,
    absoluteRedirect: true,
    portInRedirect: true,
    serverNameInRedirect: false,
    types: hasTypes ? usualTypes : builtInTypes,
    defaultType: hasTypes ? 'application/octet-stream' : 'text/plain',
    expires: null,
    cacheControl: [],
  }
}

/** The settings of a block: its own, and where it says nothing those around it. */
export function inherited(
  around: Settings,
  block: readonly Directive[],
  { kind, path }: { readonly kind: string; readonly path: string },
): Settings {
  const last = (name: string): Directive | undefined => block.findLast((each) => each.name === name)
  const isOn = (name: string, usual: boolean): boolean => {
    const [value] = last(name)?.args ?? []
    return value === undefined ? usual : value === 'on'
  }
  const pages = block.filter(({ name }) => name === 'error_page').flatMap(errorPageOf)
  return {
    root: rootOf(block, { kind, path }) ?? around.root,
    index: last('index')?.args ?? around.index,
    errorPages: pages.length > 0 ? pages : around.errorPages,
    isRecursive: isOn('recursive_error_pages', around.isRecursive),
    absoluteRedirect: isOn('absolute_redirect', around.absoluteRedirect),
    portInRedirect: isOn('port_in_redirect', around.portInRedirect),
    serverNameInRedirect: isOn('server_name_in_redirect', around.serverNameInRedirect),
    types: typesIn(block) ?? around.types,
    defaultType: last('default_type')?.args[0] ?? around.defaultType,
    expires: last('expires')?.args.at(-1) ?? around.expires,
    cacheControl: headersIn(block) ?? around.cacheControl,
  }
}

function rootOf(
  block: readonly Directive[],
  { kind, path }: { readonly kind: string; readonly path: string },
): Root | null {
  const said = block.findLast(({ name }) => name === 'root' || name === 'alias')
  const [directory] = said?.args ?? []
  if (!said || directory === undefined) return null
  if (said.name === 'root') return { directory: directory.replace(/(?<=[^/])\/+$/, ''), aliased: null }
  return { directory, aliased: kind === 'pattern' ? 'pattern' : path.length }
}

/** `types` replaces all that is around it; the file with nginx's own is known by its name. */
function typesIn(block: readonly Directive[]): Types | null {
  const own = block.filter(({ name }) => name === 'types')
  const isUsual = block.some(
    ({ name, args: [file = ''] }) => name === 'include' && /(?:^|\/)mime\.types$/.test(file),
  )
  if (own.length === 0) return isUsual ? usualTypes : null
  const said = own.flatMap(({ block: inside }) => (inside ?? []).map(({ name, args }) => [name, ...args]))
  return new Map([...(isUsual ? usualTypes : []), ...typesOf(said)])
}

/** A block that adds a header inherits none. */
function headersIn(block: readonly Directive[]): string[] | null {
  const added = block.filter(({ name }) => name === 'add_header')
  if (added.length === 0) return null
  return added.flatMap(({ args: [name = '', value = ''] }) => (/^cache-control$/i.test(name) ? [value] : []))
}

const unit: Readonly<Record<string, number>> = {
  s: 1,
  m: 60,
  h: 3_600,
  d: 86_400,
  w: 604_800,
  M: 2_592_000,
  y: 31_536_000,
}

/** For how long something is kept, by `expires` and `Cache-Control`; null where nothing is said. Seconds. */
export function keptFor(expires: string | null, cacheControl: readonly string[]): number | null {
  const said = cacheControl.join(',')
  if (/\bno-(?:cache|store)\b/i.test(said)) return 0
  const [, age] = /\bmax-age=(\d+)/i.exec(said) ?? []
  if (age !== undefined) return Number(age)
  if (expires === null || expires === 'off') return null
  if (expires === 'max') return 10 * (unit.y ?? 0)
  const times = [...expires.matchAll(/(\d+)([smhdwMy]?)/g)]
  if (expires.startsWith('-') || expires === 'epoch' || times.length === 0) return 0
  return times.reduce((sum, [, count, of]) => sum + Number(count) * (unit[of || 's'] ?? 0), 0)
}

function errorPageOf({ args }: Directive): ErrorPage[] {
  const target = args.at(-1)
  const changed = args.find((each) => each.startsWith('='))
  const codes = args
    .slice(0, -1)
    .filter((each) => /^\d{3}$/.test(each))
    .map(Number)
  if (target === undefined || codes.length === 0) return []
  return [{ codes, status: changed === undefined ? null : Number(changed.slice(1)), target }]
}
