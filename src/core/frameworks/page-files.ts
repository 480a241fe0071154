import { extensionOf } from '../model/folder.ts'
import { joinRoute, type SourceRoute } from '../model/source-route.ts'

/** How a framework makes pages of files. */
export interface PageFiles {
  /** Directories whose files are pages; the first that holds any is the one. */
  readonly directories: readonly string[]
  /** The page's path for a file below that directory, without its extension; null when the file is no page. */
  readonly pageOf: (path: string) => string | null
  readonly extensions: readonly string[]
}

/** What most frameworks write pages in. */
export const pageScripts = ['tsx', 'jsx', 'ts', 'js', 'mdx']

/** The pages that a project's files make. */
export function fileRoutes(paths: Iterable<string>, pages: PageFiles): SourceRoute[] {
  const all = [...paths]
  for (const directory of pages.directories) {
    const own = all.filter(
      (path) => path.startsWith(`${directory}/`) && pages.extensions.includes(extensionOf(path)),
    )
    const found = own.flatMap((file): SourceRoute[] => {
      const page = pages.pageOf(file.slice(directory.length + 1).replace(/\.\w+$/, ''))
      return page === null ? [] : [{ pattern: page, place: { file, line: 1, column: 1 }, kind: 'file' }]
    })
    if (found.length > 0) return found
  }
  return []
}

/**
 * The steps of bracket notation as routes have them: `[id]` and `[id=kind]` are parameters, `[[id]]` may be left out,
 * `[...rest]` takes all, `(group)` and `@slot` are no steps. Null for `_private` ones and those that intercept others.
 */
export function bracketSteps(steps: readonly string[]): string | null {
  const found: string[] = []
  for (const step of steps) {
    if (/^_/.test(step) || /^\(\.+\)/.test(step)) return null
    if (/^\(.*\)$/.test(step) || step.startsWith('@') || /^\[\[[^.].*\]\]$/.test(step)) continue
    if (/^\[{1,2}\.\.\./.test(step)) found.push('*')
    else found.push(step.replace(/\[(\w+)(?:=\w+)?\]/g, ':$1').replace(/\{\.*(?:\w+\.+)*(\w+)\}/g, ':$1'))
  }
  return joinRoute(...found)
}

/** A file is a page when it has this name; its directory is the path. */
export function namedPages(name: string): PageFiles['pageOf'] {
  return (path) => {
    const steps = path.split('/')
    return steps.pop()?.split('@')[0] === name ? bracketSteps(steps) : null
  }
}

/** Every file is a page; `index` goes by its directory. */
export function everyFile(excluded: RegExp = /^$/): PageFiles['pageOf'] {
  return (path) => {
    const steps = path.split('/')
    if (excluded.test(path) || steps.some((step) => /^(?:404|500)$/.test(step))) return null
    if (steps.at(-1) === 'index') steps.pop()
    return bracketSteps(steps)
  }
}

/**
 * Names whose points are slashes: `sailings.$id` is `/sailings/:id`. A step that begins with an underscore is a layout's
 * and no part of the path, one that ends with it leaves the layout, `$` alone takes all, `(id)` may be left out.
 */
export function flatPage(path: string): string | null {
  // `[.]` is a point of the name itself.
  const name = path.replace(/\/route$/, '').replace(/\[\.\]/g, '\u0000')
  const steps = name.split(/[./]/)
  if (/(?:^|[./])__root$/.test(name) || (steps.at(-1) ?? '').startsWith('-')) return null
  const found: string[] = []
  for (const [index, step] of steps.entries()) {
    const last = index === steps.length - 1
    if (last && (step === '_index' || step === 'index')) continue
    // A layout alone is no page.
    if (step.startsWith('_')) {
      if (last) return null
      continue
    }
    if (/^\(.*\)$/.test(step) || step === 'route') continue
    const plain = step
      .replace(/_$/, '')
      .replace(/^([^[]*)\[(.+)\]/, '$1$2')
      .replaceAll('\u0000', '.')
    found.push(plain === '$' ? '*' : plain.replace(/^\$/, ':'))
  }
  return joinRoute(...found)
}
