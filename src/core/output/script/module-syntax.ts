import type { Reference } from '../../model/reference.ts'
import { codeAfter, codeBefore, type Literal } from './literal.ts'
import { isPassedInstead } from './passed-instead.ts'

type Meaning = Pick<Reference, 'kind' | 'against'>

const newUrl = /(?:^|[^\w$.])new URL\($/
/** Nobody links to these. */
const loadedOnly = /\.(?:wasm|[cm]?js|css|woff2?|ttf|otf)(?:[?#]|$)/i
const requestedAtOnce =
  /(?:fetch|Worker|import|addModule|register|importScripts)\((?:new )?new URL\($|\.src=new URL\($/
/** What a bundler writes for the running script's own URL, where the element does not tell it: nobody requests that name. */
const ownUrl = /\.src\s*\|\|\s*new URL\($/
/** `new URL(x,new URL("../a.ts",import.meta.url))`: only where another begins. */
const baseOfUrl = /,\s*new URL\($/
/** A path without an extension is an address of a server, which a build may keep code for that it never runs. */
const hasExtension = /\.[a-z][\da-z]*(?:[?#]|$)/i
const ofThisModule = /^,\s*(?:\w+\.)?import\.meta\.url|^,\s*\w{1,3}\.url\b/
const ofThePage = /^,\s*(?:window\.|self\.)?(?:document\.baseURI|location(?:\.href)?|document\.location)\b/

/** A bare name is for an import map or a bundler, not for a URL. */
const url = /^(?:\.{0,2}\/|https?:)/
const notData = /^(?!data:|blob:)/

/** Code just before a literal that says what it is, the form it must have, and what it then means. */
const meanings: readonly (readonly [RegExp, RegExp, Meaning])[] = [
  [/(?:^|[^\w$.])(?:from|import)$/, url, { kind: 'import', against: 'file' }],
  [/(?:^|[^\w$.])import\($/, url, { kind: 'lazy-import', against: 'file' }],
  [/(?:^|[^\w$.])import\($/, /^[a-z@][\w@./-]*$/i, { kind: 'lazy-import', against: 'map' }],
  [/(?:^|[^\w$.])new (?:Shared)?Worker\($/, notData, { kind: 'script', against: 'page' }],
  [/\bserviceWorker\.register\($/, notData, { kind: 'service-worker', against: 'page' }],
  [/(?:^|[^\w$.])importScripts\($/, notData, { kind: 'script', against: 'file' }],
  // A compiled module: `WebAssembly.instantiateStreaming(fetch("/engine.wasm"))`.
  [/(?:^|[^\w$.])fetch\($/, /^[^?#]+\.wasm(?:[?#]|$)/, { kind: 'file', against: 'page' }],
  // What is a file by its ending; other paths are a server's.
  [
    /(?:^|[^\w$.])fetch\($/,
    /^(?![a-z]+:|\/\/)[^?#]+\.(?:json|geojson|topojson|csv|tsv|txt|md|xml|svg|html|glb|gltf|bin|pbf)(?:[?#]|$)/,
    { kind: 'data', against: 'page' },
  ],
  [/(?:^|[^\w$.])new Audio\($/, /^(?!data:|blob:)[^\s?#]+\.\w+/, { kind: 'media', against: 'page' }],
  [/\.addModule\($/, notData, { kind: 'script', against: 'page' }],
]

/** A module for the SystemJS loader: `System.register(["./a.js"], …)`, and in it `context.import("./b.js")`. */
const systemModule = 'System.register('
const systemList = /^(?:["'`][^"'`]*["'`],\s*)?\[\s*(?:["'`][^"'`]*["'`],\s*)*$/
const longestList = 4_000
/** Such a file begins with it, behind a comment at most. */
const deepestStart = 2_000

/** How each of them ends, so that most literals are passed over at once. */
const mayMean = /[(tm[,]$/

/** Imports, workers, service workers and `new URL(…, import.meta.url)`: the syntax alone says what they are. */
export function moduleReference(code: string, { value, start, end }: Literal): Reference | null {
  const before = codeBefore(code, start - 1)
  if (!mayMean.test(before)) return null
  const system = ofSystem(code, { before, value, start })
  if (system) return { kind: system, against: 'file', raw: value, offset: start, length: end - start }
  // `import("./"+name)`: the beginning of a name is none.
  if (codeAfter(code, end + 1, 2).startsWith('+')) return null
  const meaning = newUrl.test(before)
    ? ofNewUrl(code, { before, value, start, end })
    : meaningOf(before, value)
  return meaning && { ...meaning, raw: value, offset: start, length: end - start }
}

/** What a literal is in a module for SystemJS, which names its files with `./`. */
function ofSystem(
  code: string,
  { before, value, start }: Pick<Literal, 'value' | 'start'> & { readonly before: string },
): 'import' | 'lazy-import' | null {
  if (!url.test(value)) return null
  const at = code.lastIndexOf(systemModule, Math.min(start, deepestStart))
  if (at < 0) return null
  if (/[\w$]\.import\($/.test(before)) return 'lazy-import'
  const between = code.slice(at + systemModule.length, Math.min(start - 1, at + longestList))
  return /[[,]$/.test(before) && start - at < longestList && systemList.test(between) ? 'import' : null
}

function meaningOf(before: string, value: string): Meaning | null {
  return meanings.find(([context, form]) => context.test(before) && form.test(value))?.[2] ?? null
}

function ofNewUrl(
  code: string,
  { before, value, start, end }: Pick<Literal, 'value' | 'start' | 'end'> & { readonly before: string },
): Meaning | null {
  if (ownUrl.test(before) || baseOfUrl.test(before) || !hasExtension.test(value)) return null
  const after = codeAfter(code, end + 1)
  if (ofThisModule.test(after))
    return isPassedInstead(code, start, value) ? null : { kind: 'file', against: 'file' }
  // It may become a socket, a link, or a part of another address: a request only where one takes it at once.
  if (!ofThePage.test(after)) return null
  const isRequested = loadedOnly.test(value) || requestedAtOnce.test(before)
  return { kind: isRequested ? 'file' : 'named', against: 'page' }
}
