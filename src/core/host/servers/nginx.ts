import type { Rule } from '../../model/rule.ts'
import type { Site } from '../../model/site.ts'
import { escapePattern } from '../../model/text.ts'
import type { Documents, Host } from '../host.ts'
import { slashes } from './nginx-slashes.ts'
import { patternOf, targetFor } from './pattern.ts'

/**
 * The part of an nginx server block that answers as the host does; null when nginx has no plain words for it.
 * @param root where the folder is on the server
 * @param has whether the folder holds a file: of several documents the first that is there is sent
 */
export function nginxRules(
  host: Host,
  { base }: Site,
  root: string,
  has: (file: string) => boolean,
): string | null {
  if (host.letterCase !== 'kept') return null
  const fallback = documentOf(host.fallback, has)
  const notFound = documentOf(host.notFound, has)
  const last = fallback
    ? [`rewrite ^ ${base}${fallback} last;`]
    : notFound
      ? [`error_page 404 =${host.notFound?.status} ${base}${notFound};`, 'return 404;']
      : ['return 404;']
  const lines = [
    ...(base === '/' ? [] : [`location = ${base.slice(0, -1)} { return 301 ${base}; }`]),
    ...host.rules.filter(({ from }) => !from.startsWith(base)).map((rule) => outside(rule)),
    `location ${base} {`,
    ...indent([
      `${base === '/' ? 'root' : 'alias'} ${root.replace(/(?<!\/)\/*$/, base === '/' ? '' : '/')};`,
      `index ${host.directoryIndex};`,
      'absolute_redirect off;',
      'recursive_error_pages on;',
      'error_page 403 404 = @missing;',
      ...host.withheld.map((start) => `if ($uri ~ "/${escapePattern(start)}") { return 404; }`),
      ...host.rules.filter(({ forced }) => forced).flatMap((rule) => apply(rule)),
      ...slashes(host, base),
      ...(host.extensionless && host.trailingSlash !== 'add' ? extensionless : []),
    ]),
    '}',
    'location @missing {',
    ...indent([
      'absolute_redirect off;',
      'recursive_error_pages on;',
      ...host.rules.filter(({ forced }) => !forced).flatMap((rule) => apply(rule)),
      ...last,
    ]),
    '}',
  ]
  return `${lines.join('\n')}\n`
}

/** nginx's tests can't be joined, so the answer is gathered in a variable. */
const extensionless = [
  'set $page "";',
  'if (-f $request_filename.html) { set $page yes; }',
  'if (-f $request_filename) { set $page ""; }',
  'if ($page) { rewrite ^(.*)$ $1.html last; }',
]

function documentOf(documents: Documents | null, has: (file: string) => boolean): string | undefined {
  return documents?.documents.find(has)
}

function outside(rule: Rule): string {
  return `location ~ "${patternOf(rule)}" { ${apply(rule).join(' ')} }`
}

function apply(rule: Rule): string[] {
  if (rule.conditions.length > 0) return []
  const pattern = patternOf(rule)
  const target = targetFor(rule, (index) => `$${index}`)
  if (target === null) return [`if ($uri ~ "${pattern}") { return ${rule.status}; }`]
  if (rule.status >= 300 && rule.status < 400)
    return [`if ($uri ~ "${pattern}") { return ${rule.status} ${target}; }`]
  if (rule.status === 200) return [`rewrite "${pattern}" ${target} last;`]
  return [`if ($uri ~ "${pattern}") { error_page ${rule.status} ${target}; return ${rule.status}; }`]
}

function indent(lines: readonly string[]): string[] {
  return lines.map((line) => `    ${line}`)
}
