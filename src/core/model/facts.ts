import type { ImportMap } from './import-map.ts'
import type { PageValue } from './page-value.ts'
import type { ReferenceList } from './reference-list.ts'

/** How a call requests a URL, as far as the code beside it shows. */
export interface RequestSettings {
  readonly method: string
  /** Names and values of headers; a value that only the running code knows is `x`. */
  readonly headers: readonly (readonly [name: string, value: string])[]
  readonly credentials: boolean
}

/** An absolute URL in built code, with what it visibly flows into. */
export interface EndpointLiteral {
  readonly url: string
  readonly offset: number
  readonly length: number
  /** The call it is passed to (`fetch`, `WebSocket`, …), or null when that can't be seen. */
  readonly flow: string | null
  /** Whether its literal begins with it; one further in is a sentence or markup that mentions it. */
  readonly begins: boolean
  /** A path of the own origin that a request is seen to take, and that is no file by its name. */
  readonly own?: true
  /** The settings of the call, when it shows any. */
  readonly settings?: RequestSettings
}

/** Where an environment variable shows in the output. Never its value. */
export interface Occurrence {
  readonly name: string
  /**
   * `present`: its value or the trace of one. `absent`: `undefined` stands where the source reads it. `unreplaced`: the read
   * itself was left in. `lacking`: the whole environment is written out here, without it. `development`: the value that only development has. `private`: the value of one that must not ship.
   */
  readonly state: 'present' | 'absent' | 'lacking' | 'unreplaced' | 'development' | 'private'
  readonly offset: number
  readonly length: number
  /** Which source read this answers to: an index into the survey's reads, or null for a value found by itself. */
  readonly read: number | null
}

/** A text in a built file that has the shape of a credential. The text itself is never kept. */
export interface CredentialShape {
  /** What such a text is, in words: "a private key". */
  readonly kind: string
  readonly offset: number
  readonly length: number
  /** Why it was taken for one. */
  readonly reason: string
  /** Its issuer gives this shape only to what is private and in use. */
  readonly live?: true
}

/** A part of a file; UTF-16 units. */
export interface Span {
  readonly offset: number
  readonly length: number
}

/** An address that a page gives itself. */
export interface OwnAddress extends Span {
  readonly url: string
}

/** A route that a built script gives a page to, with where it stands. */
export interface BuiltRoute extends Span {
  readonly pattern: string
}

/** What a built script says of routes. */
export interface BuiltRoutes {
  readonly routes: readonly BuiltRoute[]
  /** How its router keeps the path: a host knows nothing of what is behind a hash. Null where nothing of it shows. */
  readonly router: 'hash' | 'history' | 'hash unless said' | null
}

/** A path that a script gives to its router, for what stands before its routes. */
export interface RouterBaseText extends Span {
  readonly path: string
}

/** A name that only Node has, in a script for browsers. */
export interface NodeName extends Span {
  readonly name: 'process' | 'global' | 'Buffer' | 'require' | '__dirname' | '__filename' | 'exports'
  /** The variable that is read: `API` of `process.env.API`. */
  readonly variable: string | null
  /** The script gives it a value, so that others have it. */
  readonly made?: true
}

/** What was read in one built file. Small, and free of the file's bytes. */
export interface FileFacts {
  readonly path: string
  readonly kind: FileKind
  /** Bytes. */
  readonly size: number
  readonly references: ReferenceList
  readonly endpoints: readonly EndpointLiteral[]
  readonly occurrences: readonly Occurrence[]
  readonly credentials: readonly CredentialShape[]
  /** `<base href>` of a document, the first one, as the HTML standard says. */
  readonly baseHref: string | null
  /** The base path a bundler wrote into this script for its own chunks. */
  readonly bundleBase: string | null
  readonly routerBases: readonly RouterBaseText[]
  readonly builtRoutes: BuiltRoutes | null
  /** The import map of a page; of a script, that it makes one. */
  readonly importMap: ImportMap | null
  /** Paths that a page keeps for its scripts. */
  readonly pageValues: readonly PageValue[]
  /** What a page says is its own address: its canonical link, `og:url`. */
  readonly ownAddresses: readonly OwnAddress[]
  /** Inline scripts that do not run, since nothing stands where a value should. */
  readonly gaps: readonly Span[]
  /** Where a script stops being one, so that a browser runs none of it. */
  readonly breaks: Break | null
  /** The first statement of a script that only a module may hold. */
  readonly moduleSyntax: Span | null
  /** Content Security Policies that a page gives itself. */
  readonly policies: readonly PagePolicy[]
  /** A template's marker that the page shows as its title. */
  readonly titleMarker: Span | null
  readonly nodeNames: readonly NodeName[]
  /** What only a development build holds, by name. */
  readonly developmentSigns: readonly string[]
  /** Why the file was not read, or not to its end. */
  readonly unread: string | null
}

/** A policy in a page holds for what stands behind it. */
export interface PagePolicy extends Span {
  readonly text: string
  /** The first script behind it that stands in the page itself. */
  readonly inline: Span | null
}

/** The place where a script stops being one. */
export interface Break extends Span {
  /** It ends too early. */
  readonly isCut: boolean
}

/** How a file is read. */
export type FileKind =
  | 'page'
  | 'style'
  | 'script'
  | 'manifest'
  | 'drawing'
  | 'data'
  | 'feed'
  | 'text'
  | 'other'

/** What few files have, beside their references. */
export type Particulars = Omit<FileFacts, 'path' | 'kind' | 'size' | 'unread' | 'references'>

/** A file that has none of them. */
export const noParticulars: Particulars = {
  endpoints: [],
  occurrences: [],
  credentials: [],
  baseHref: null,
  bundleBase: null,
  routerBases: [],
  builtRoutes: null,
  importMap: null,
  pageValues: [],
  ownAddresses: [],
  gaps: [],
  breaks: null,
  moduleSyntax: null,
  policies: [],
  titleMarker: null,
  nodeNames: [],
  developmentSigns: [],
}

const particulars = Object.keys(noParticulars) as (keyof Particulars)[]

/** The particulars among facts; null when there are none, as for most files of a large site. */
export function particularsOf(facts: Particulars): Particulars | null {
  const isThere = (value: unknown): boolean => value !== null && !(Array.isArray(value) && value.length === 0)
  if (!particulars.some((name) => isThere(facts[name]))) return null
  return Object.fromEntries(particulars.map((name) => [name, facts[name]])) as unknown as Particulars
}

/** What is a file's own, whatever its content. */
export type FileHead = Pick<FileFacts, 'path' | 'kind' | 'size' | 'unread'>

/**
 * The facts of a file. Written out: objects put together by spreading are dictionaries to the engine, and a folder has a hundred
 * thousand of them.
 */
export function factsOf<References>(
  { path, kind, size, unread }: FileHead,
  references: References,
  of: Particulars,
): Omit<FileFacts, 'references'> & { readonly references: References } {
  return {
    path,
    kind,
    size,
    unread,
    references,
    endpoints: of.endpoints,
    occurrences: of.occurrences,
    credentials: of.credentials,
    baseHref: of.baseHref,
    bundleBase: of.bundleBase,
    routerBases: of.routerBases,
    builtRoutes: of.builtRoutes,
    importMap: of.importMap,
    pageValues: of.pageValues,
    ownAddresses: of.ownAddresses,
    gaps: of.gaps,
    breaks: of.breaks,
    moduleSyntax: of.moduleSyntax,
    policies: of.policies,
    titleMarker: of.titleMarker,
    nodeNames: of.nodeNames,
    developmentSigns: of.developmentSigns,
  }
}
