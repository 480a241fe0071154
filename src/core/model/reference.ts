/**
 * What makes a browser (or a person) request a URL.
 * `data`: what a script fetches by a name that is a file's; a server may make it. `page`: a link a person follows. `navigation`: where a script sends its visitor. `form`: where a form is sent. `old-script`: what only browsers without modules run. `base`: what other URLs start from. `stored`: what a service worker stores when it is installed. `hint`: a fetch whose failure nobody sees. `named`: a string in a script that
 * looks like a file; whether it is a reference is decided when the folder's files are known.
 */
export type ReferenceKind =
  | 'script'
  | 'old-script'
  | 'service-worker'
  | 'stored'
  | 'style'
  | 'image'
  | 'font'
  | 'media'
  | 'manifest'
  | 'icon'
  | 'frame'
  | 'import'
  | 'lazy-import'
  | 'preload'
  | 'file'
  | 'data'
  | 'named'
  | 'hint'
  | 'page'
  | 'navigation'
  | 'form'
  | 'base'

/**
 * What a URL is resolved against: the document's address, the file's own, the base path its bundler wrote down, or,
 * for a script, each page that runs it; or the site's own base path. `map`: a name that an import map leads on. `behind`: what the
 * code puts before it, so that it counts only where that is known.
 */
export type Against = 'document' | 'file' | 'bundle-base' | 'page' | 'site' | 'map' | 'behind'

/** A place in a built file from which a browser makes a request. */
export interface Reference {
  readonly kind: ReferenceKind
  /** The URL as written, entities and escapes resolved. */
  readonly raw: string
  readonly against: Against
  /** Where the URL is written: offset and length in UTF-16 code units of the decoded file. */
  readonly offset: number
  readonly length: number
  /** For `named`: the string stands where an element's URL goes, so it is one, whatever files there are. */
  readonly sure?: true
  /**
   * A first visit goes without it: it is requested when a person comes near, or stands for another that a browser may
   * choose instead.
   */
  readonly later?: true
  /** The name with holes that this file is one of. */
  readonly pattern?: string
  /** A script element that is no module. */
  readonly classic?: true
  /** The digests the file must have (Subresource Integrity), or what a manifest calls its hash. */
  readonly integrity?: string
}

/** The kinds by what a visitor loses when one does not arrive, the worst first. */
export const kindsByWeight: readonly ReferenceKind[] = [
  'script',
  'import',
  'style',
  'lazy-import',
  'preload',
  'frame',
  'image',
  'media',
  'font',
  'file',
  'data',
  'named',
  'service-worker',
  'stored',
  'old-script',
  'icon',
  'manifest',
  'hint',
  'page',
  'navigation',
  'form',
  'base',
]

/** Stands in a `named` reference for the part that is only known when the script runs. No URL holds it. */
export const hole = '\u0000'

/** What of a URL is written out: all of it, or what stands before the first hole. */
export function fixedPart({ raw, pattern }: Reference): string {
  const fixed = pattern?.slice(0, pattern.indexOf(hole)) ?? '/'
  // A slash alone begins everything.
  return fixed === '/' ? raw : fixed
}

/** A URL without its query and fragment, which name no other file. */
export function withoutQuery(raw: string): string {
  const end = raw.search(/[?#]/)
  return end < 0 ? raw : raw.slice(0, end)
}

/**
 * Of a piece of a page: what counts only where it names a file of the folder. Links stay links where they begin at the top of a host;
 * others begin at whatever page the piece is put into.
 */
export function namedOnly(references: readonly Reference[]): Reference[] {
  return references.flatMap(({ sure: _, ...each }): Reference[] => {
    if (each.kind === 'navigation') return [each]
    if (each.kind !== 'page') return [{ ...each, kind: 'named' }]
    return /^(?:\/|[a-z][a-z\d+.-]*:)/i.test(each.raw) ? [each] : []
  })
}
