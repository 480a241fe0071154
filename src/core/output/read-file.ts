import type { FileFacts, FileKind, Sighting } from '../model/facts.ts'
import { extensionOf } from '../model/folder.ts'
import type { Hunt } from '../model/wanted.ts'
import type { Reference } from '../model/reference.ts'
import { decode } from '../model/text.ts'
import { credentialsIn } from './credentials.ts'
import { readCss } from './css.ts'
import { endpointsInData } from './data-endpoints.ts'
import { readFeed } from './feed.ts'
import { readHtml } from './html/document.ts'
import { readImportMap, readJson } from './json.ts'
import { readManifest } from './manifest.ts'
import { readPayload } from './payload.ts'
import { endpointsOf } from './script/endpoints.ts'
import { Literals } from './script/literal.ts'
import { bundleBaseOf } from './script/preload-list.ts'
import { referencesOf } from './script/references.ts'
import { sightingsOf, tracesInMarkup, valuesIn } from './script/occurrences.ts'
import { developmentSigns } from './script/signatures.ts'

type Found = Pick<
  FileFacts,
  'endpoints' | 'sightings' | 'credentials' | 'baseHref' | 'bundleBase' | 'developmentSigns'
> & {
  readonly references: readonly Reference[]
}

/** The facts of one file as they were read, its references not packed yet. */
export type ReadFacts = FileFacts & Found

const nothing: Found = {
  references: [],
  endpoints: [],
  sightings: [],
  credentials: [],
  baseHref: null,
  bundleBase: null,
  developmentSigns: [],
}

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
  return kinds[extensionOf(path)] ?? 'other'
}

const readers: Readonly<Record<FileKind, (text: string, hunt: Hunt) => Found>> = {
  page: readPage,
  style: (text, hunt) => ({ ...nothing, references: readCss(text), sightings: valuesIn(text, hunt) }),
  script: readScript,
  manifest: (text) => ({ ...nothing, references: readManifest(text) }),
  drawing: (text) => ({ ...nothing, references: ofFile(readHtml(text).references) }),
  data: (text, hunt) => ({
    ...nothing,
    references: ofFile(readJson(text)),
    endpoints: endpointsInData(text),
    sightings: valuesIn(text, hunt),
    credentials: credentialsIn(text),
  }),
  feed: (text) => ({ ...nothing, references: readFeed(text) }),
  text: (text, hunt) => ({
    ...nothing,
    references: ofFile(readPayload(text)),
    sightings: valuesIn(text, hunt),
    credentials: credentialsIn(text),
  }),
  other: () => nothing,
}

/** Reads one built file. A pure function of its bytes and of what is hunted; never throws for what the file holds. */
export function readFile(path: string, bytes: Uint8Array, hunt: Hunt): ReadFacts {
  const kind = kindOf(path)
  const head = { path, kind, size: bytes.length, unread: null }
  if (kind === 'other') return { ...head, ...nothing }
  return { ...head, ...readers[kind](decode(bytes), hunt) }
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

function readScript(text: string, hunt: Hunt): Found {
  const literals = new Literals(text)
  return {
    references: referencesOf(text, literals),
    endpoints: endpointsOf(text, literals, hunt),
    sightings: sightingsOf(text, literals, hunt),
    credentials: credentialsIn(text),
    baseHref: null,
    bundleBase: bundleBaseOf(text, literals),
    developmentSigns: developmentSigns(text),
  }
}

function distinct(sightings: readonly Sighting[]): Sighting[] {
  const seen = new Set<string>()
  return sightings.filter(({ name, state, offset, read }) => {
    const key = `${name} ${state} ${offset} ${read}`
    return seen.has(key) ? false : seen.add(key)
  })
}

function readPage(text: string, hunt: Hunt): Found {
  const page = readHtml(text)
  const scripts = page.inline.filter(({ kind }) => kind === 'script')
  const data = page.inline.flatMap(({ kind, text: inner, offset }) =>
    kind === 'json' ? readPayload(inner, offset) : kind === 'importmap' ? readImportMap(inner, offset) : [],
  )
  const read = scripts.map(({ text: code, offset }) => ({ offset, found: readScript(code, hunt) }))
  const shift = <T extends { offset: number }>(list: (found: Found) => readonly T[]): T[] =>
    read.flatMap(({ offset, found }) =>
      list(found).map((each) => ({ ...each, offset: each.offset + offset })),
    )
  return {
    references: [
      ...page.references,
      ...data,
      // Inline code has no address of its own: its imports start from the document.
      ...shift(({ references }) => references).map((each) =>
        each.against === 'file' ? { ...each, against: 'document' as const } : each,
      ),
    ],
    endpoints: [
      ...shift(({ endpoints }) => endpoints),
      ...page.inline.flatMap(({ kind, text: inner, offset }) =>
        kind === 'json' ? endpointsInData(inner, offset) : [],
      ),
      ...page.origins,
    ],
    // Attributes and payloads hold values too; what stands in a script is seen twice, and told once.
    sightings: distinct([
      ...shift(({ sightings }) => sightings),
      ...valuesIn(text, hunt),
      ...tracesInMarkup(text, hunt),
    ]),
    // What a page shows may be a sample in a manual; what its scripts and data hold is used.
    credentials: [
      ...shift(({ credentials }) => credentials),
      ...page.inline.flatMap(({ kind, text: inner, offset }) =>
        kind === 'json'
          ? credentialsIn(inner).map((each) => ({ ...each, offset: each.offset + offset }))
          : [],
      ),
    ],
    baseHref: page.baseHref,
    bundleBase: null,
    developmentSigns: [],
  }
}
