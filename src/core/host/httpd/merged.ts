import type { Unclear } from '../sent.ts'
import type { Block, FilesSection, Redirect } from './block.ts'
import type { RewriteRule } from './rules.ts'

/** What holds for one file: the blocks of its directories, from the outermost to its own. */
export interface Merged {
  index: readonly string[]
  addsSlash: boolean
  fallback: string | null
  listsFiles: boolean
  isDenied: boolean
  errorDocuments: Map<number, string>
  redirects: Redirect[]
  rewrites: { isOn: boolean; rules: readonly RewriteRule[]; base: string | null; directory: string } | null
  types: Map<string, string>
  expires: ReadonlyMap<string, string>
  cacheControl: readonly string[]
  files: FilesSection[]
  unclear: Unclear[]
}

export function nothingSaid(): Merged {
  return {
    index: ['index.html'],
    addsSlash: true,
    fallback: null,
    listsFiles: false,
    isDenied: false,
    errorDocuments: new Map(),
    redirects: [],
    rewrites: null,
    types: new Map(),
    expires: new Map(),
    cacheControl: [],
    files: [],
    unclear: [],
  }
}

/** Adds a block to what is around it: what it says itself holds. @param directory where the block is */
export function add(around: Merged, block: Block, directory: string): void {
  around.index = block.index ?? around.index
  around.addsSlash = block.addsSlash ?? around.addsSlash
  around.fallback = block.fallback ?? around.fallback
  around.listsFiles = block.listsFiles ?? around.listsFiles
  around.isDenied = block.isDenied ?? around.isDenied
  for (const [status, target] of block.errorDocuments) around.errorDocuments.set(status, target)
  around.redirects = [...block.redirects, ...around.redirects]
  // Rules of a directory take the place of those above it.
  if (block.rewrites) {
    const isOn = block.rewrites.isOn ?? around.rewrites?.isOn ?? false
    around.rewrites = { ...block.rewrites, isOn, directory }
  }
  for (const [extension, type] of block.types) around.types.set(extension, type)
  if (block.expires.size > 0) around.expires = new Map([...around.expires, ...block.expires])
  around.cacheControl = block.cacheControl ?? around.cacheControl
  around.files.push(...block.files)
  around.unclear.push(...block.unclear)
}
