import type { Directive } from '../../host/nginx/directives.ts'
import { blockFor } from '../../host/nginx/host.ts'
import { serverFor } from '../../host/nginx/read.ts'
import type { Context } from '../../host/nginx/server.ts'
import type { Place } from '../../model/reading.ts'
import { describeRule } from '../../model/rule.ts'
import { type Cause, defineCheck, type Evidence } from '../check.ts'
import { answerTo } from '../server-rules.ts'

/** A rule of the host leads to what is not there, or can never lead anywhere. */
export const ruleMisses = defineCheck({
  code: 'route/rule-misses',
  severity: 'caution',
  title: 'A rule of the host leads nowhere',
  keywords: ['try_files', 'alias', 'error_page', 'location', 'trailing slash'],
  after: ['route/no-answer', 'project/misplaced'],
  run: (evidence) => [...ofRules(evidence), ...ofNginx(evidence)],
})

/** A rule whose document is not in the folder. */
function ofRules(evidence: Evidence): Cause[] {
  const { host, site, folder } = evidence
  if (host.server || !folder.present) return []
  return host.rules.flatMap((rule): Cause[] => {
    const { to, status, place, conditions } = rule
    const isDocument = (status === 200 || status >= 400) && to?.startsWith(site.base) && !/[:*?]/.test(to)
    if (!isDocument || to === null || place === null || conditions.length > 0) return []
    return answerTo(to, evidence).file === null ? [missing(to, describeRule(rule), place, evidence)] : []
  })
}

function ofNginx(evidence: Evidence): Cause[] {
  const { host, site, folder } = evidence
  if (host.server?.kind !== 'nginx' || !folder.present) return []
  const { top } = serverFor(host.server, site.origin)
  const block = blockFor(host.server, site)
  const last = block.tryFiles?.args.at(-1) ?? ''
  const pages = block.settings.errorPages.map(({ target }) => target)
  const isPath = (target: string): boolean => target.startsWith('/') && !target.includes('$')
  const targets = [last, ...pages].filter(isPath).map((target) => target.split('?', 1)[0] ?? '')
  const by = (target: string): Directive | Context =>
    last.startsWith(target) && block.tryFiles ? block.tryFiles : block
  return [
    ...[...new Set(targets)]
      .filter((target) => !isThere(target, evidence))
      .map((target) => missing(target, `${host.name} falls back on it`, by(target).place, evidence)),
    ...withoutSlash(top),
    ...neverMet(top),
  ]
}

/** What is only for requests of the server itself is there all the same. */
function isThere(target: string, evidence: Evidence): boolean {
  const { site, requested } = evidence
  return target.startsWith(site.base) && requested.index.has(target.slice(site.base.length))
    ? true
    : answerTo(target, evidence).file !== null
}

function missing(target: string, rule: string, place: Place, { folder, site }: Evidence): Cause {
  const isOutside = !target.startsWith(site.base)
  return {
    key: target,
    impact: `An error page where ${target} should come.`,
    cause: isOutside
      ? `${rule}, and ${target} is outside of the site, which is below ${site.base}.`
      : `${rule}, and ${folder.name} does not hold ${target.slice(site.base.length)}.`,
    source: place,
    fix: [
      isOutside
        ? `Write  ${site.base}${target.slice(1)}  there.`
        : 'Name a file that the folder holds, or take the rule out.',
    ],
  }
}

/** A location that ends with a slash, and an alias that does not: what follows is joined to the directory's name. */
function withoutSlash(context: Context): Cause[] {
  const { kind, path, settings, inside, place } = context
  const { directory, aliased } = settings.root
  const isOwn = kind === 'prefix' && aliased === path.length && path.endsWith('/') && !directory.endsWith('/')
  const own: Cause = {
    key: `alias ${path}`,
    impact: `An error page for every file below ${path}.`,
    cause: `The location ${path} ends with a slash and its alias ${directory} does not, so that a request for ${path}app.js looks for ${directory}app.js.`,
    source: place,
    fix: [`Write  alias ${directory}/;`],
  }
  return [...(isOwn ? [own] : []), ...inside.flatMap(withoutSlash)]
}

/** A pattern behind one that is the same: the first that fits is taken. */
function neverMet({ inside }: Context): Cause[] {
  const patterns = inside.filter(({ kind }) => kind === 'pattern')
  return patterns.flatMap((each, at): Cause[] => {
    const earlier = patterns
      .slice(0, at)
      .find(({ path, pattern }) => path === each.path && pattern?.flags === each.pattern?.flags)
    if (!earlier) return []
    return [
      {
        key: `location ${each.path}`,
        impact: 'What is written in it never holds.',
        cause: `The location ${each.path} is never met: the one at line ${earlier.place.line} is the same, and comes first.`,
        source: each.place,
        fix: ['Write both as one.'],
      },
    ]
  })
}
