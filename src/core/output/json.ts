import type { Reference } from '../model/reference.ts'
import { readPayload } from './payload.ts'

/** A string of a JSON text, its escapes resolved, with where it is. */
interface JsonString {
  readonly value: string
  readonly offset: number
  readonly length: number
}

/** Called for every string that is a value, with its key; and for every key whose value is a string. */
type OnPair = (key: JsonString | null, value: JsonString, path: readonly string[]) => void

const digest = /^sha(?:256|384|512)-[\w+/]+=*$/
const hex40 = /^[\da-f]{40}$/

/**
 * What a JSON file names. Manifests that give the digest of each file they list are believed to need them all: the boot
 * manifest of a WebAssembly application, the file table of a service worker. Other names count where they meet a file.
 */
export function readJson(text: string): Reference[] {
  const manifest = /"(?:hashTable|mainAssemblyName|entryAssembly)"\s*:/.test(text)
  const listed = manifest ? listedFiles(text) : []
  return [...listed, ...readPayload(text)]
}

/** The files of a manifest with digests. */
function listedFiles(text: string): Reference[] {
  const found: Reference[] = []
  let named: JsonString | null = null
  const add = (file: JsonString, integrity: string): void => {
    const reference = {
      kind: 'file',
      raw: file.value,
      against: 'file',
      offset: file.offset,
      length: file.length,
    } as const
    found.push(integrity === '' ? reference : { ...reference, integrity })
  }
  eachPair(text, (key, value, path) => {
    if (key === null) return
    const resource = path.includes('resources') && !path.includes('satelliteResources')
    if (path.includes('hashTable') && hex40.test(value.value)) add(key, `sha1:${value.value}`)
    else if (resource && /\.\w+$/.test(key.value) && (value.value === '' || digest.test(value.value))) {
      add(key, value.value)
    } else if (resource && key.value === 'name') named = value
    else if (
      resource &&
      (key.value === 'integrity' || key.value === 'hash') &&
      named &&
      digest.test(value.value)
    ) {
      add(named, value.value)
      named = null
    }
  })
  return found
}

/** Goes over the strings of a JSON text in order, knowing the keys they stand below. Never throws: a broken text ends it. */
function eachPair(text: string, onPair: OnPair): void {
  const path: string[] = []
  let key: JsonString | null = null
  for (const match of text.matchAll(/"((?:[^"\\]|\\.)*)"(\s*:)?|[{}[\]]/g)) {
    const [token, inner, colon] = match
    if (token === '{' || token === '[') {
      path.push(key?.value ?? '')
      key = null
    } else if (token === '}' || token === ']') {
      path.pop()
      key = null
    } else {
      const raw = inner ?? ''
      const found = { value: unescapeJson(raw), offset: match.index + 1, length: raw.length }
      if (colon !== undefined) key = found
      else {
        onPair(key, found, path)
        key = null
      }
    }
  }
}

function unescapeJson(raw: string): string {
  if (!raw.includes('\\')) return raw
  try {
    const value: unknown = JSON.parse(`"${raw}"`)
    return typeof value === 'string' ? value : raw
  } catch {
    return raw
  }
}

/** The modules of an import map (HTML standard, 8.1.6.2), and the digests it gives. */
export function readImportMap(text: string): Reference[] {
  const found: Reference[] = []
  const digests = new Map<string, string>()
  eachPair(text, (key, value, path) => {
    if (path.includes('integrity') && key) digests.set(key.value, value.value)
  })
  eachPair(text, (key, { value, offset, length }, path) => {
    if (
      key === null ||
      path.includes('integrity') ||
      !/^(?:\.{0,2}\/|https?:)/.test(value) ||
      value.endsWith('/')
    )
      return
    const integrity = digests.get(value)
    const reference = {
      kind: 'lazy-import',
      raw: value,
      against: 'document',
      offset,
      length,
    } as const
    found.push(integrity ? { ...reference, integrity } : reference)
  })
  return found
}
