import { serverFor } from '../../host/nginx/read.ts'
import { extensionOf } from '../../model/folder.ts'
import type { ReferenceKind } from '../../model/reference.ts'
import { counted, listed } from '../../model/text.ts'
import type { Request } from '../../requests/request.ts'
import { type Cause, defineCheck, type Evidence, placesOf } from '../check.ts'
import { effectOf } from '../missing-files.ts'
import { lineIn } from '../server-rules.ts'

/** The host sends a script or a style with a type that browsers refuse. */
export const wrongType = defineCheck({
  code: 'asset/wrong-type',
  severity: 'blocker',
  title: 'A file comes with a type that browsers refuse',
  keywords: ['MIME type', 'Content-Type', 'application/octet-stream', 'text/plain', 'mjs', 'wasm'],
  after: ['asset/missing', 'asset/answered-with-page'],
  run,
})

/** The types of scripts, as the MIME Sniffing standard lists them, without parameters. */
const scriptType =
  /^(?:(?:application|text)\/(?:x-)?(?:java|ecma)script|text\/(?:javascript1\.[0-5]|jscript|livescript))$/

/** What only modules are asked for by. */
const modules: ReadonlySet<ReferenceKind> = new Set(['import', 'lazy-import'])

function run(evidence: Evidence): Cause[] {
  const byType = new Map<string, Request[]>()
  for (const request of evidence.requested.requests) {
    const { status, file, contentType: sent } = request.answer
    const contentType = sent?.split(';', 1)[0]?.trim().toLowerCase()
    if (status >= 300 || file === null || !contentType || !isRefused(request, contentType)) continue
    const key = `.${extensionOf(file)} ${contentType}`
    byType.set(key, [...(byType.get(key) ?? []), request])
  }
  return [...byType].map(([key, requests]) => causeOf(key, requests, evidence))
}

/** Classic scripts run whatever their type is, so that only what is surely a module counts. */
function isRefused({ places, answer: { file } }: Request, contentType: string): boolean {
  const extension = extensionOf(file ?? '')
  const isAsked = (kinds: (kind: ReferenceKind) => boolean): boolean =>
    places.some(({ reference: { kind } }) => kinds(kind))
  if (extension === 'wasm') return contentType !== 'application/wasm'
  if (extension === 'css') return contentType !== 'text/css' && isAsked((kind) => kind === 'style')
  const isModule = extension === 'mjs' ? isAsked((kind) => kind === 'script' || modules.has(kind)) : false
  return (
    (isModule || (extension === 'js' && isAsked((kind) => modules.has(kind)))) &&
    !scriptType.test(contentType)
  )
}

interface Kind {
  readonly wanted: string
  readonly what: string
  readonly impact?: string
}

const scripts: Kind = { wanted: 'text/javascript', what: 'modules' }
const kinds: Readonly<Record<string, Kind>> = {
  '.css': {
    wanted: 'text/css',
    what: 'style sheets',
    impact: 'The page is bare: browsers refuse the style sheet.',
  },
  '.wasm': {
    wanted: 'application/wasm',
    what: 'WebAssembly while it loads',
    impact: 'A program of the page starts late, or not at all where its loader tries nothing else.',
  },
}

function causeOf(key: string, requests: readonly Request[], evidence: Evidence): Cause {
  const [extension = '', contentType = ''] = key.split(' ')
  const { wanted, what, impact } = kinds[extension] ?? scripts
  const names = listed(requests.slice(0, 3).map(({ answer: { file } }) => file ?? ''))
  const own = evidence.host.server
  const top = own?.kind === 'nginx' ? serverFor(own, evidence.site.origin).top : null
  const inServer = top && lineIn(top, `types { ${wanted} ${extension.slice(1)}; }`, 'include mime.types;')
  return {
    key,
    // Most loaders try again in another way, which takes longer.
    severity: extension === '.wasm' ? 'caution' : undefined,
    impact: impact ?? effectOf(requests),
    cause: `The host "${evidence.host.name}" sends ${counted(requests.length, 'file')} with the type ${contentType} (${names}), and browsers take ${what} as ${wanted} alone.`,
    places: placesOf(requests),
    fix: inServer ?? [`Let the host send ${extension} files as ${wanted}.`],
    claims: requests,
  }
}
