import {
  type EndpointLiteral,
  type FileFacts,
  type FileKind,
  factsOf,
  noParticulars,
  type Occurrence,
  type Particulars,
  type Span,
} from '../model/facts.ts'
import { extensionOf, nameOf } from '../model/folder.ts'
import { emptyImportMap, joinImportMaps, parseImportMap } from '../model/import-map.ts'
import { markerInTitle } from '../model/marker.ts'
import { own } from '../model/own.ts'
import { namedOnly, type Reference } from '../model/reference.ts'
import type { Search } from '../model/search.ts'
import { decode } from '../model/text.ts'
import { credentialsIn, credentialWords } from './credentials.ts'
import { readCss } from './css.ts'
import { dataBreakIn } from './data-break.ts'
import { endpointsInData } from './data-endpoints.ts'
import { readFeed } from './feed.ts'
import { type InlineText, readHtml } from './html/document.ts'
import { readImportMap, readJson } from './json.ts'
import { readWebManifest } from './manifest.ts'
import { readPayload } from './payload.ts'
import { place } from './scanner.ts'
import { bareImports } from './script/bare-imports.ts'
import { breakIn, breakWords } from './script/breaks.ts'
import { endpointsOf, endpointWords, isBelow } from './script/endpoints.ts'
import { gapIn, mayHoldGap } from './script/gaps.ts'
import { Literals } from './script/literal.ts'
import { nodeNamesIn, nodeWords } from './script/node-names.ts'
import { occurrencesOf, tracesInMarkup, valuesIn } from './script/occurrences.ts'
import { bundleBaseOf, preloadWords } from './script/preload-list.ts'
import { windowValuesIn } from './script/public-path.ts'
import { referencesOf } from './script/references.ts'
import { routeTablesIn, routeWords } from './script/route-tables.ts'
import { baseWords, routerBasesIn } from './script/router-bases.ts'
import { developmentSigns, signWords } from './script/signatures.ts'
import { storedWord } from './script/stored-files.ts'
import { WordList } from './words.ts'

type Found = Particulars & { readonly references: readonly Reference[] }

/** The facts of one file as they were read, its references not packed yet. */
export type ReadFacts = FileFacts & Found

const nothing: Found = { references: [], ...noParticulars }

const kinds: Readonly<Record<string, FileKind>> = {
  html: 'page',
  htm: 'page',
  css: 'style',
  js: 'script',
  mjs: 'script',
  cjs: 'script',
  webmanifest: 'manifest',
  svg: 'drawing',
  json: 'data',
  xml: 'feed',
  rss: 'feed',
  atom: 'feed',
  txt: 'text',
}

/** How a file of this name is read. */
export function kindOf(path: string): FileKind {
  if (/(?:^|\/)manifest\.json$/.test(path)) return 'manifest'
  return own(kinds, extensionOf(path)) ?? 'other'
}

function readBundle(text: string, search: Search): Found {
  const literals = new Literals(text)
  const mentions = scriptWords.in(text)
  const found = readScript(text, search, literals, mentions)
  const { isOdd, moduleAt } = literals.scanned
  const moduleSyntax = moduleAt < 0 ? null : { offset: moduleAt, length: 6 }
  return { ...found, breaks: breakIn(text, isOdd, mentions), moduleSyntax }
}

const readers: Readonly<Record<FileKind, (text: string, search: Search) => Found>> = {
  page: readPage,
  style: (text, search) => ({ ...nothing, references: readCss(text), occurrences: valuesIn(text, search) }),
  script: readBundle,
  manifest: (text) => ({ ...nothing, references: readWebManifest(text) }),
  drawing: (text) => ({ ...nothing, references: ofFile(readHtml(text).references) }),
  data: (text, search) => ({
    ...nothing,
    references: ofFile(readJson(text)),
    endpoints: endpointsInData(text),
    breaks: dataBreakIn(text),
    occurrences: valuesIn(text, search),
    credentials: credentialsIn(text),
  }),
  feed: (text) => ({ ...nothing, references: readFeed(text) }),
  text: (text, search) => ({
    ...nothing,
    references: ofFile(readPayload(text)),
    occurrences: valuesIn(text, search),
    credentials: credentialsIn(text),
  }),
  other: () => nothing,
}

/** Reads one built file. A pure function of its bytes and of what is searched for; never throws for what the file holds. */
export function readFile(path: string, bytes: Uint8Array, search: Search): ReadFacts {
  const kind = kindOf(path)
  const head = { path, kind, size: bytes.length, unread: null }
  if (kind === 'other') return factsOf(head, [], noParticulars)
  const text = decode(bytes)
  if (kind === 'script') place(text, bytes)
  const found = readers[kind](text, search)
  const references = isFragment(path, kind, text) ? namedOnly(found.references) : found.references
  return factsOf(head, references, found)
}

const ofDocument = /<(?:!doctype|html|head|body|title|frameset)\b/i

/** A piece of a page, which a script or a server puts into others: its URLs start from those. */
function isFragment(path: string, kind: FileKind, text: string): boolean {
  return kind === 'page' && nameOf(path) !== 'index.html' && !ofDocument.test(text)
}

/** A file that is there and need not be read. */
export function listedFile(path: string, size = 0): FileFacts {
  return { path, kind: kindOf(path), size, ...nothing, unread: null }
}

/** The facts of a file that could not be read. */
export function unreadFile(path: string, reason: string): FileFacts {
  return { path, kind: kindOf(path), size: 0, ...nothing, unread: reason }
}

/** A file that is no document resolves its URLs from its own address. */
function ofFile(references: readonly Reference[]): Reference[] {
  return references.map((each) => (each.against === 'document' ? { ...each, against: 'file' } : each))
}

const importMapWord = 'importmap'

/** What readers of scripts look for: one pass finds all of it. */
const scriptWords = new WordList([
  ...credentialWords,
  ...nodeWords,
  ...routeWords,
  ...signWords,
  ...baseWords,
  ...breakWords,
  ...preloadWords,
  ...endpointWords,
  storedWord,
  importMapWord,
])

function readScript(
  text: string,
  search: Search,
  literals = new Literals(text),
  mentions = scriptWords.in(text),
): Found {
  return {
    references: [...bareImports(text), ...referencesOf(text, literals, mentions)],
    endpoints: endpointsOf(text, literals, search, mentions),
    occurrences: occurrencesOf(text, literals, search),
    credentials: credentialsIn(text, mentions),
    baseHref: null,
    bundleBase: bundleBaseOf(text, literals, mentions),
    routerBases: routerBasesIn(text, literals, mentions),
    builtRoutes: routeTablesIn(text, mentions),
    pageValues: windowValuesIn(text),
    ownAddresses: [],
    gaps: [],
    breaks: null,
    moduleSyntax: null,
    policies: [],
    titleMarker: null,
    importMap: mentions.has(importMapWord) ? { ...emptyImportMap, elsewhere: true } : null,
    nodeNames: nodeNamesIn(text, literals, mentions),
    developmentSigns: developmentSigns(mentions),
  }
}

function distinct(occurrences: readonly Occurrence[]): Occurrence[] {
  const seen = new Set<string>()
  return occurrences.filter(({ name, state, offset, read }) => {
    const key = `${name} ${state} ${offset} ${read}`
    return seen.has(key) ? false : seen.add(key)
  })
}

/** Parsing scripts that are broken is dear: after so many of one page no more are tried. */
const mostTried = 20

function gapsIn(scripts: readonly InlineText[]): Span[] {
  return scripts
    .filter(({ text }) => mayHoldGap(text))
    .slice(0, mostTried)
    .flatMap(({ text, offset }) => {
      const found = gapIn(text)
      return found ? [{ ...found, offset: found.offset + offset }] : []
    })
}

/** What was found in the data of a page, where it stands in the page. */
function placedIn<T extends Span>({ offset, within }: InlineText, found: readonly T[]): T[] {
  return found.map((each) =>
    within === undefined ? { ...each, offset: each.offset + offset } : { ...each, offset, length: within },
  )
}

/** Inline code has no address of its own: its imports start from the document. */
function ofPage(references: readonly Reference[]): Reference[] {
  return references.map((each) => (each.against === 'file' ? { ...each, against: 'document' } : each))
}

/** A path that an element asks for may be a page of the folder; what the development server forwards, and what is sent, is none. */
function askedHere({ own: isOwn, ...each }: EndpointLiteral, { paths }: Search): EndpointLiteral[] {
  if (!isOwn || paths.some((path) => isBelow(each.url, path))) return [each]
  return each.settings?.method === 'GET' ? [] : [{ ...each, own: true }]
}

function readPage(text: string, search: Search): Found {
  const page = readHtml(text)
  const scripts = page.inline.filter(({ kind }) => kind === 'script')
  const inData = <T extends Span>(kind: InlineText['kind'], reader: (text: string) => readonly T[]): T[] =>
    page.inline.filter((each) => each.kind === kind).flatMap((each) => placedIn(each, reader(each.text)))
  const handlers = page.inline
    .filter(({ kind }) => kind === 'handler')
    .map((code) => ({ code, literals: new Literals(code.text), mentions: scriptWords.in(code.text) }))
  const read = scripts.map(({ text: code, offset }) => ({ offset, found: readScript(code, search) }))
  const shift = <T extends { offset: number }>(list: (found: Found) => readonly T[]): T[] =>
    read.flatMap(({ offset, found }) =>
      list(found).map((each) => ({ ...each, offset: each.offset + offset })),
    )
  return {
    references: [
      ...page.references,
      ...inData('json', readPayload),
      ...inData('importmap', readImportMap),
      // What waits for an event, or for a library, counts where it names a file.
      ...handlers.flatMap(({ code, literals, mentions }) =>
        placedIn(code, namedOnly(ofPage(referencesOf(code.text, literals, mentions)))),
      ),
      ...ofPage(shift(({ references }) => references)),
    ],
    endpoints: [
      ...shift(({ endpoints }) => endpoints),
      ...handlers.flatMap(({ code, literals, mentions }) =>
        placedIn(code, endpointsOf(code.text, literals, search, mentions)),
      ),
      ...inData('json', endpointsInData),
      ...page.origins.flatMap((each) => askedHere(each, search)),
    ],
    // Attributes and payloads hold values too; what stands in a script is seen twice, and reported once.
    occurrences: distinct([
      ...shift(({ occurrences }) => occurrences),
      ...valuesIn(text, search),
      ...tracesInMarkup(text, search),
    ]),
    // What a page shows may be a sample in a manual; what its scripts and data hold is used.
    credentials: [...shift(({ credentials }) => credentials), ...inData('json', credentialsIn)],
    baseHref: page.baseHref,
    bundleBase: null,
    routerBases: shift(({ routerBases }) => routerBases),
    builtRoutes: null,
    pageValues: [...page.values, ...read.flatMap(({ found }) => found.pageValues)],
    ownAddresses: page.ownAddresses,
    gaps: gapsIn(scripts),
    breaks: null,
    moduleSyntax: null,
    policies: page.policies.map((each) => {
      const first = scripts.find(({ offset, nonce }) => offset > each.offset && !nonce)
      return { ...each, inline: first ? { offset: first.offset, length: 1 } : null }
    }),
    titleMarker: markerInTitle(text),
    importMap: joinImportMaps([
      ...page.inline.filter(({ kind }) => kind === 'importmap').map(({ text: map }) => parseImportMap(map)),
      ...read.flatMap(({ found }) => found.importMap ?? []),
      ...(page.mapElsewhere ? [{ ...emptyImportMap, elsewhere: true as const }] : []),
    ]),
    nodeNames: shift(({ nodeNames }) => nodeNames),
    developmentSigns: [],
  }
}
