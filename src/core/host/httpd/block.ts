import type { Place } from '../../model/reading.ts'
import type { Unclear } from '../sent.ts'
import { serverPattern } from '../server-pattern.ts'
import type { Directive } from './directives.ts'
import { type RewriteRule, rewriteRules } from './rules.ts'

/** `Redirect` and its kin. */
export interface Redirect {
  readonly status: number
  /** A path with all below it, or a pattern. */
  readonly from: string | RegExp
  readonly to: string | null
  readonly place: Place
}

/** A section for some files by their names. */
export interface FilesSection {
  readonly fits: (name: string) => boolean
  readonly block: Block
}

/** What a directory's configuration says; null where it says nothing, and what is around it holds. */
export interface Block {
  readonly index: readonly string[] | null
  readonly addsSlash: boolean | null
  readonly fallback: string | null
  readonly listsFiles: boolean | null
  readonly isDenied: boolean | null
  readonly errorDocuments: ReadonlyMap<number, string>
  readonly redirects: readonly Redirect[]
  /** Null where no word of it is about rewriting; whether it is on may be said above. */
  readonly rewrites: {
    readonly isOn: boolean | null
    readonly rules: readonly RewriteRule[]
    readonly base: string | null
  } | null
  readonly types: ReadonlyMap<string, string>
  readonly expires: ReadonlyMap<string, string>
  readonly cacheControl: readonly string[] | null
  readonly files: readonly FilesSection[]
  readonly unclear: readonly Unclear[]
}

/** Modules that servers for files have. */
const modules =
  /^!?(?:mod_)?(?:rewrite|dir|alias|mime|headers|expires|deflate|filter|setenvif|authz_core|autoindex|env|brotli|ssl|http2|log_config|core)(?:\.c|_module)?$/i

/** Leave status, file and location of an answer as they are, or are read elsewhere. */
const harmless =
  /^(?:serversignature|servertokens|fileetag|addcharset|adddefaultcharset|addencoding|addlanguage|addoutputfilter\w*|setoutputfilter|deflate\w*|brotli\w*|filter\w*|header|requestheader|setenv\w*|unsetenv|passenv|browsermatch\w*|expires\w*|errorlog|customlog|loglevel|logformat|transferlog|ssl\w*|protocols|h2\w*|allowoverride\w*|servername|serveralias|serveradmin|documentroot|alias\w*|scriptalias\w*|order|authtype|authname|authuserfile|require|allow|deny|satisfy|limitrequest\w*|timeout|keepalive\w*|mergeslashes|usecanonicalname|rewriteengine|rewritebase|rewritecond|rewriterule|redirect\w*|errordocument|fallbackresource|directoryindex|directoryslash|options|addtype|forcetype|listen|loadmodule|include\w*|php_\w+|indexoptions|indexignore\w*|readmename|headername|indexorderdefault|modpagespeed\w*|proxy\w*|contentdigest|enablesendfile|enablemmap|hostnamelookups|user|group|pidfile|typesconfig|serverroot|mutex|define|acceptpathinfo)$/

/** Reads the directives of a directory, those in sections that always hold among them. */
export function blockOf(directives: readonly Directive[]): Block {
  const all = flattened(directives)
  const last = (name: string): Directive | undefined => all.findLast((each) => each.name === name)
  const engine = last('rewriteengine')?.args[0]?.toLowerCase()
  const slash = last('directoryslash')?.args[0]?.toLowerCase()
  return {
    index: last('directoryindex')?.args ?? null,
    addsSlash: slash === undefined ? null : slash === 'on',
    fallback: last('fallbackresource')?.args[0] ?? null,
    listsFiles: listing(all),
    isDenied: denied(all),
    errorDocuments: new Map(
      all.flatMap(({ name, args: [code = '', ...rest] }): [number, string][] =>
        name === 'errordocument' ? [[Number(code), rest.join(' ')]] : [],
      ),
    ),
    redirects: all.flatMap(redirectOf),
    rewrites: all.some(({ name }) => /^rewrite(?:engine|rule|base)$/.test(name))
      ? {
          isOn: engine === undefined ? null : engine === 'on',
          rules: rewriteRules(all),
          base: last('rewritebase')?.args[0] ?? null,
        }
      : null,
    types: typesIn(all),
    expires: expiresIn(all),
    cacheControl: cacheControlIn(all),
    files: all.flatMap(filesSection),
    unclear: all.flatMap(unclearIn),
  }
}

/** `<IfModule>` and its kin hold or do not; the directives of those that do stand in their place. */
function flattened(directives: readonly Directive[]): Directive[] {
  return directives.flatMap((each) => {
    if (!/^(?:ifmodule|ifdefine|ifversion|limit|limitexcept)$/.test(each.name)) return [each]
    if (each.name === 'limit') return []
    const [word = ''] = each.args
    const holds = each.name !== 'ifmodule' || modules.test(word) !== word.startsWith('!')
    return holds ? flattened(each.inside ?? []) : []
  })
}

function unclearIn({ name, args, inside, place }: Directive): Unclear[] {
  if (/^(?:files|filesmatch|proxy)$/.test(name)) return []
  if (inside !== null) return [{ what: `<${name}>`, place }]
  if (name === 'options' && args.some((each) => /^\+?multiviews$/i.test(each)))
    return [{ what: 'MultiViews', place }]
  return harmless.test(name) ? [] : [{ what: name, place }]
}

function listing(all: readonly Directive[]): boolean | null {
  let lists: boolean | null = null
  for (const { name, args } of all)
    if (name === 'options')
      for (const each of args) {
        if (/^(?:\+?indexes|all)$/i.test(each)) lists = true
        else if (/^(?:-indexes|none)$/i.test(each)) lists = false
      }
  return lists
}

function denied(all: readonly Directive[]): boolean | null {
  let is: boolean | null = null
  for (const { name, args } of all) {
    const text = args.join(' ').toLowerCase()
    if (name === 'require') is = text === 'all denied'
    if (name === 'deny' && text === 'from all') is = true
    if (name === 'allow' && text === 'from all') is = false
  }
  return is
}

const words: Readonly<Record<string, number>> = { permanent: 301, temp: 302, seeother: 303, gone: 410 }

function redirectOf({ name, args, place }: Directive): Redirect[] {
  if (!/^redirect(?:match|permanent|temp)?$/.test(name)) return []
  const [first = ''] = args
  const own = name === 'redirectpermanent' ? 301 : name === 'redirecttemp' ? 302 : null
  const status = own ?? (/^\d{3}$/.test(first) ? Number(first) : (words[first.toLowerCase()] ?? null))
  const [from = '', to] = status === null || own !== null ? args : args.slice(1)
  const pattern = name === 'redirectmatch' ? serverPattern(from, false) : from
  return pattern === null ? [] : [{ status: status ?? 302, from: pattern, to: to ?? null, place }]
}

function typesIn(all: readonly Directive[]): Map<string, string> {
  const types = new Map<string, string>()
  for (const {
    name,
    args: [type = '', ...extensions],
  } of all) {
    if (name === 'forcetype') types.set('*', type)
    if (name === 'addtype')
      for (const each of extensions) types.set(each.replace(/^\./, '').toLowerCase(), type)
  }
  return types
}

/** By type; `*` for all others. Nothing where it is not active. */
function expiresIn(all: readonly Directive[]): Map<string, string> {
  const isActive = all.some(({ name, args }) => name === 'expiresactive' && /^on$/i.test(args[0] ?? ''))
  if (!isActive) return new Map()
  return new Map(
    all.flatMap(({ name, args }): [string, string][] => {
      if (name === 'expiresdefault') return [['*', args.join(' ')]]
      return name === 'expiresbytype' ? [[(args[0] ?? '').toLowerCase(), args.slice(1).join(' ')]] : []
    }),
  )
}

function cacheControlIn(all: readonly Directive[]): string[] | null {
  const said = all.flatMap(({ name, args }) => {
    const words = args.filter((each) => !/^(?:always|onsuccess)$/i.test(each))
    return name === 'header' && /^cache-control$/i.test(words[1] ?? '') ? [words[2] ?? ''] : []
  })
  return said.length > 0 ? said : null
}

function filesSection({ name, args, inside }: Directive): FilesSection[] {
  if (inside === null || !/^files(?:match)?$/.test(name)) return []
  const isPattern = name === 'filesmatch' || args[0] === '~'
  const [source = ''] = args[0] === '~' ? args.slice(1) : args
  const pattern = serverPattern(isPattern ? source : wildcard(source), false)
  return pattern === null ? [] : [{ fits: (file) => pattern.test(file), block: blockOf(inside) }]
}

function wildcard(text: string): string {
  const escaped = text.replace(/[.+^${}()|[\]\\]/g, '\\$&')
  return `^${escaped.replaceAll('*', '.*').replaceAll('?', '.')}$`
}
