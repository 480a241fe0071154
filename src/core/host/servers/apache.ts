import type { Rule } from '../../model/rule.ts'
import type { Site } from '../../model/site.ts'
import { escapePattern } from '../../model/text.ts'
import type { Host } from '../host.ts'
import { patternOf, targetFor } from './pattern.ts'

/**
 * The part of an Apache httpd virtual host (2.4, with mod_alias, mod_dir and mod_rewrite) that answers as the host does;
 * null when httpd has no plain words for it.
 * @param root where the folder is on the server
 */
export function apacheRules(
  host: Host,
  { base }: Site,
  root: string,
  has: (file: string) => boolean,
): string | null {
  if (host.trailingSlash !== 'keep' || host.letterCase !== 'kept') return null
  const directory = root.replace(/(?<!\/)\/*$/, '')
  const fallback = host.fallback?.documents.find(has)
  const notFound = host.notFound?.documents.find(has)
  const lines = [
    'RewriteEngine On',
    ...(base === '/'
      ? [`DocumentRoot "${directory}"`]
      : [`RewriteRule "^${base.slice(0, -1)}$" "${base}" [R=301,L]`, `Alias "${base}" "${directory}/"`]),
    // In this place no path is mapped to a file yet, so the file is named from the folder.
    ...host.rules.flatMap((rule) => apply(rule, base, directory)),
    ...(host.extensionless ? extensionless(base, directory) : []),
    ...(fallback
      ? [
          `RewriteCond "%{REQUEST_URI}" "^${base}(.*)$"`,
          `RewriteCond "${directory}/%1" !-f`,
          `RewriteCond "${directory}/%1/${host.directoryIndex}" !-f`,
          // A directory requested without its slash is sent on to the path with it.
          `RewriteCond "${directory}/%1" !-d`,
          `RewriteRule "^" "${base}${fallback}" [PT,L]`,
        ]
      : []),
    `<Directory "${directory}">`,
    '    Require all granted',
    '    AllowOverride None',
    '    Options -Indexes +FollowSymLinks',
    `    DirectoryIndex ${host.directoryIndex}`,
    ...(notFound ? [`    ErrorDocument ${host.notFound?.status} "${base}${notFound}"`] : []),
    ...host.withheld.map((start) => `    RedirectMatch 404 "/${escapePattern(start)}"`),
    '</Directory>',
  ]
  return `${lines.join('\n')}\n`
}

function extensionless(base: string, directory: string): string[] {
  return [
    `RewriteCond "${directory}/$1" !-f`,
    `RewriteCond "${directory}/$1.html" -f`,
    `RewriteRule "^${base}(.+[^/])$" "${base}$1.html" [PT,L]`,
  ]
}

function apply(rule: Rule, base: string, directory: string): string[] {
  if (rule.conditions.length > 0) return []
  const target = targetFor(rule, (index) => `$${index}`)
  const unlessFile = rule.forced
    ? []
    : [
        `RewriteCond "%{REQUEST_URI}" "^${base}(.*)$"`,
        `RewriteCond "${directory}/%1" !-f`,
        `RewriteCond "${directory}/%1" !-d`,
      ]
  const flags =
    target === null || rule.status >= 400
      ? `R=${rule.status},L`
      : rule.status >= 300
        ? `R=${rule.status},L,NE`
        : 'PT,L'
  const sent = target === null || rule.status >= 400 ? '-' : target
  return [
    ...(rule.from.startsWith(base) ? unlessFile : []),
    `RewriteRule "${patternOf(rule)}" "${sent}" [${flags}]`,
  ]
}
