import type { Place } from '../../model/reading.ts'
import { tidy } from '../disk.ts'
import type { Mount } from '../nginx/read.ts'
import type { Unclear } from '../sent.ts'
import { serverPattern } from '../server-pattern.ts'
import { type Block, blockOf } from './block.ts'
import { type Directive, directivesIn } from './directives.ts'
import type { RewriteRule } from './rules.ts'

/** An `.htaccess` of the folder. */
export interface DirectoryFile {
  /** From the folder's top; `''` for the top. */
  readonly directory: string
  readonly file: string
  readonly text: string
}

/** httpd's configuration, or the `.htaccess` files alone, with where the folder is on its disk when that is known. */
export interface HttpdHost {
  readonly kind: 'httpd'
  readonly file: string
  /** Null where only the files of directories are known. */
  readonly directives: readonly Directive[] | null
  readonly directories: ReadonlyMap<string, Block>
  readonly broken: readonly Unclear[]
  readonly mount: Mount | null
}

/** Reads what there is of httpd's configuration. @param whole the server's own, if it is known */
export function readHttpd(
  whole: { readonly file: string; readonly text: string } | null,
  files: readonly DirectoryFile[],
  mount: Mount | null = null,
): HttpdHost {
  const read = whole && directivesIn(whole.file, whole.text)
  const directories = new Map<string, Block>()
  const broken: Unclear[] = [...(read?.broken ?? [])]
  for (const { directory, file, text } of files) {
    const found = directivesIn(file, text)
    broken.push(...found.broken)
    directories.set(directory, blockOf(found.directives))
  }
  return {
    kind: 'httpd',
    file: whole?.file ?? files[0]?.file ?? '.htaccess',
    directives: read?.directives ?? null,
    directories,
    broken,
    mount,
  }
}

/** `ProxyPass`. */
export interface Pass {
  readonly from: string | RegExp
  readonly isExcluded: boolean
  readonly place: Place
}

/** The part of a configuration that answers for a host. */
export interface HttpdServer {
  readonly root: string
  readonly aliases: readonly { readonly path: string; readonly directory: string; readonly place: Place }[]
  readonly rules: readonly RewriteRule[]
  /** What is handed on to another server, the first that fits; or is not. */
  readonly passes: readonly Pass[]
  /** By the path that is requested. */
  readonly locations: readonly { readonly fits: (path: string) => boolean; readonly block: Block }[]
  readonly outside: Block
  /** By the directory of the server's disk; a pattern for several. */
  readonly blocks: readonly { readonly fits: (directory: string) => boolean; readonly block: Block }[]
  /** Whether `.htaccess` files are read there. */
  readonly readsFiles: (directory: string) => boolean
  readonly scheme: 'http' | 'https'
  readonly unclear: readonly Unclear[]
}

/** What every distribution's configuration says beside a site's own: its files of configuration are for nobody. */
const usual = blockOf(directivesIn('', '<FilesMatch "^\\.ht">\nRequire all denied\n</FilesMatch>').directives)

/** Where the folder of a site stands when nobody says. */
export const usualRoot = '/var/www/html'

const servers = new WeakMap<HttpdHost, Map<string, HttpdServer>>()

/** The virtual host that answers for an origin, or the server itself. */
export function httpdServerFor(host: HttpdHost, origin: string): HttpdServer {
  const known = servers.get(host) ?? new Map<string, HttpdServer>()
  servers.set(host, known)
  const server = known.get(origin) ?? serverOf(host, new URL(origin))
  known.set(origin, server)
  return server
}

function serverOf({ directives, broken, directories }: HttpdHost, { hostname, protocol }: URL): HttpdServer {
  const ofFiles = [...directories.values()].flatMap(({ unclear }) => unclear)
  const unclear = [...broken, ...ofFiles]
  const scheme = protocol === 'https:' ? 'https' : 'http'
  if (directives === null)
    return {
      root: usualRoot,
      aliases: [],
      rules: [],
      passes: [],
      locations: [],
      outside: usual,
      blocks: [],
      readsFiles: () => true,
      scheme,
      unclear,
    }
  const chosen = virtualHost(directives, hostname, scheme)
  const main = directives.filter(({ name }) => name !== 'virtualhost')
  const all = [...main, ...(chosen?.inside ?? [])]
  const outside = blockOf(all.filter(({ name }) => !isSection(name)))
  const sections = all.filter(({ name }) => /^directory(?:match)?$/.test(name))
  const last = (name: string): string | undefined => all.findLast((each) => each.name === name)?.args[0]
  const blocks = sections.map((section) => ({
    ...section,
    fits: fitsOf(section),
    block: blockOf(section.inside ?? []),
  }))
  return {
    root: tidyEnd(last('documentroot') ?? usualRoot),
    aliases: all
      .flatMap(({ name, args: [path = '', directory = ''], place }) =>
        name === 'alias'
          ? [{ path, directory: path.endsWith('/') ? directory : tidyEnd(directory), place }]
          : [],
      )
      .toSorted((a, b) => b.path.length - a.path.length),
    rules: outside.rewrites?.rules ?? [],
    passes: all.flatMap(passOf),
    locations: all
      .filter(({ name }) => /^location(?:match)?$/.test(name))
      .map((section) => ({ fits: fitsPath(section), block: blockOf(section.inside ?? []) })),
    outside: { ...outside, files: [...usual.files, ...outside.files] },
    blocks,
    readsFiles: (directory) => {
      const said = sections
        .filter((section) => above(section, directory))
        .flatMap(({ inside }) => inside ?? [])
      const allowed = said.findLast(({ name }) => name === 'allowoverride')
      return allowed !== undefined && !/^none$/i.test(allowed.args[0] ?? '')
    },
    scheme: chosen?.args.some((address) => address.endsWith(':443')) ? 'https' : scheme,
    unclear: [
      ...unclear,
      ...outside.unclear,
      ...blocks.flatMap(({ block }) => block.unclear),
      ...all.flatMap(({ name, place }) =>
        /^(?:if|proxymatch|macro)$/.test(name) ? [{ what: `<${name}>`, place }] : [],
      ),
    ],
  }
}

function isSection(name: string): boolean {
  return /^(?:directory|directorymatch|virtualhost|location|locationmatch)$/.test(name)
}

function passOf({ name, args: [from = '', to = ''], place }: Directive): Pass[] {
  if (name !== 'proxypass' && name !== 'proxypassmatch') return []
  const pattern = name === 'proxypassmatch' ? serverPattern(from, false) : from
  return pattern === null ? [] : [{ from: pattern, isExcluded: to === '!', place }]
}

/** A section for paths that are requested: with all below them, or by a pattern. */
function fitsPath({ name, args }: Directive): (path: string) => boolean {
  const isPattern = name === 'locationmatch' || args[0] === '~'
  const [path = ''] = args[0] === '~' ? args.slice(1) : args
  const pattern = isPattern ? serverPattern(path, false) : null
  if (isPattern) return (asked) => pattern?.test(asked) ?? false
  const top = tidyEnd(path)
  return (asked) => asked === top || asked.startsWith(path.endsWith('/') ? path : `${top}/`)
}

function above({ args: [path = ''] }: Directive, directory: string): boolean {
  const top = tidyEnd(path)
  return directory === top || directory.startsWith(`${top}/`)
}

function fitsOf({ name, args }: Directive): (directory: string) => boolean {
  const isPattern = name === 'directorymatch' || args[0] === '~'
  const [path = ''] = args[0] === '~' ? args.slice(1) : args
  const pattern = isPattern ? serverPattern(path, false) : null
  if (isPattern) return (directory) => pattern?.test(`${directory}/`) ?? false
  return (directory) => directory === tidyEnd(path)
}

function tidyEnd(path: string): string {
  return tidy(path)
}

function virtualHost(directives: readonly Directive[], host: string, scheme: string): Directive | null {
  const all = directives.filter(({ name }) => name === 'virtualhost')
  const isSecure = ({ args }: Directive): boolean => args.some((address) => address.endsWith(':443'))
  const some = all.filter((each) => isSecure(each) === (scheme === 'https'))
  const hosts = some.length > 0 ? some : all
  const names = ({ inside }: Directive): string[] =>
    (inside ?? []).flatMap(({ name, args }) => (/^server(?:name|alias)$/.test(name) ? args : []))
  return (
    hosts.find((each) => names(each).some((name) => name.replace(/:\d+$/, '') === host)) ?? hosts[0] ?? null
  )
}
