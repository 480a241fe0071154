import { own } from '../../model/own.ts'
import { describeOrigin } from '../../model/reading.ts'
import type { Edit } from '../../model/report.ts'
import { normaliseBase } from '../../model/site.ts'
import type { RouterBase } from '../../project/sources/router-base.ts'
import { type Cause, type CauseFix, defineCheck, type Evidence, rebuild } from '../check.ts'
import { inFile } from '../set-base.ts'

/** The router in the browser looks for its routes under another path. */
export const routerPath = defineCheck({
  code: 'base/router-path',
  severity: 'blocker',
  title: 'The router looks for its routes under another path',
  keywords: ['basename', 'router base', 'blank page', 'not found', 'sub-path'],
  after: ['project/needs-server', 'project/not-built'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const { routerBase } = evidence.survey
  return routerBase?.base.value == null ? inOutput(evidence) : inSources(evidence, routerBase)
}

/**
 * What the built scripts give their router, where no source tells. One that the build has too is a matter of the whole build.
 * Below the site's path it may be an application that has a directory of its own.
 */
function inOutput(evidence: Evidence): Cause[] {
  const { facts, requested, site } = evidence
  const places = facts
    .filter(({ path }) => requested.reached.has(path))
    .flatMap(({ path, routerBases }) =>
      routerBases.map(({ path: said, offset, length }) => ({ said, place: { file: path, offset, length } })),
    )
    .filter(({ said }) => {
      const own = normaliseBase(said)
      return own !== site.base && own !== requested.observed?.base && !isDirectory(own, evidence)
    })
  const [first] = places
  if (!first) return []
  const own = normaliseBase(first.said)
  return [
    {
      key: 'router',
      severity: own.startsWith(site.base) ? 'caution' : undefined,
      impact: `The page starts and finds no route for ${site.base}: "not found", or nothing.`,
      cause: `The router in the build takes its routes from ${own}; this site is served under ${site.base}.`,
      places: places.map(({ place }) => place),
      fix: [
        `Give the router ${site.base} as its base where it is made, or serve the folder at ${site.origin}${own}.`,
        rebuild(evidence),
      ],
    },
  ]
}

function isDirectory(path: string, { site, requested }: Evidence): boolean {
  return path.startsWith(site.base) && requested.index.isDirectory(path.slice(site.base.length, -1))
}

function inSources(evidence: Evidence, routerBase: NonNullable<Evidence['survey']['routerBase']>): Cause[] {
  const { site, folder } = evidence
  const said = routerBase.base.value
  if (said === null || !folder.present || evidence.facts.length === 0) return []
  const own = normaliseBase(said)
  if (own === site.base || takesBaseOfPage(evidence) || routesHoldBase(evidence)) return []
  const { maker, place, base, write } = routerBase
  const stated = base.certainty === 'stated'
  return [
    {
      key: 'router',
      // Without a table nobody can say what the router draws for an address that it does not know.
      severity: isRouted(evidence) ? undefined : 'caution',
      impact: `The page starts and finds no route for ${site.base}: "not found", or nothing.`,
      cause: stated
        ? `${write ? 'The router' : maker} takes its routes from ${own}${write ? ` (${describeOrigin(base.from)})` : ''}; this site is served under ${site.base}.`
        : `${maker} is given no base, so it takes its routes from /; this site is served under ${site.base}.`,
      source: place,
      fix: fixOf(routerBase, evidence),
    },
  ]
}

/** Some take the page's `<base>` where they are given nothing. */
function takesBaseOfPage({ survey, facts }: Evidence): boolean {
  const { form, base } = survey.routerBase ?? {}
  const hasBase = facts.some(({ path, baseHref }) => path === 'index.html' && baseHref !== null)
  const takes = form && 'takesBaseOfPage' in form && form.takesBaseOfPage === true
  return takes === true && base?.certainty === 'default' && hasBase
}

/** Whether the router surely has routes: a table that is seen, or a router that is always given some. */
function isRouted(evidence: Evidence): boolean {
  const { form, write } = evidence.survey.routerBase ?? {}
  const isAlways = form != null && ('used' in form || form.isRouted === true)
  return write !== undefined || isAlways || tableOf(evidence).length > 0
}

function tableOf({ survey }: Evidence): Evidence['survey']['routes'] {
  return survey.routes.filter(({ kind }) => kind === 'table')
}

/** Some write the base path into every route. */
function routesHoldBase(evidence: Evidence): boolean {
  return tableOf(evidence).some(({ pattern }) => `${pattern}/`.startsWith(evidence.site.base))
}

function fixOf({ beside = [], ...routerBase }: RouterBase, evidence: Evidence): CauseFix {
  const each = [routerBase, ...beside].map((one) => fixOfOne(one, evidence))
  return {
    steps: [...each.flatMap(({ steps }) => steps), rebuild(evidence)],
    edits: each.flatMap(({ edits = [] }) => edits),
  }
}

function fixOfOne({ maker, form, place, base, write }: RouterBase, evidence: Evidence): CauseFix {
  const { site } = evidence
  if (write) {
    const [step, edit] = inFile(write(site.base), place, base.certainty === 'stated' ? 'write' : 'add')
    return { steps: [step], edits: edit ? [edit] : [] }
  }
  const { file, line, column } = place
  const { words, write: expression, into } = howToGive(maker, form, evidence)
  return {
    steps: [`In ${file}, line ${line}, ${words}.`],
    edits: into ? [{ file, line, column, write: expression, into }] : [],
  }
}

/** How a router is given its base: in words, and for a program. */
function howToGive(maker: string, form: RouterBase['form'], { survey, site }: Evidence): Given {
  const bare = site.base.replace(/\/$/, '')
  // A relative base is no path that a router could compare with.
  const isPath = survey.basePath?.value?.startsWith('/') ?? false
  const given = isPath ? own(ofBuild, survey.framework?.value ?? '') : undefined
  const expression = given ?? `'${site.base}'`
  if (!form) return { words: `give ${maker} the base ${expression}`, write: expression, into: null }
  if ('used' in form) return { words: form.step(bare), write: expression, into: null }
  const { as, attribute, argument = 0, member = null } = form
  if (as === 'element' && attribute !== undefined) {
    const value = form.endsBare ? `"${bare}"` : `{${expression}}`
    return { words: `write <${maker} ${attribute}=${value}>`, write: value, into: { attribute } }
  }
  const call = as === 'new' ? `new ${maker}` : maker
  return {
    words:
      member === null
        ? `write ${call}(${expression})`
        : `give ${call} { ${member}: ${expression} } as its ${argument === 0 ? 'first' : 'second'} argument`,
    write: expression,
    into: member === null ? { argument } : { argument, member },
  }
}

interface Given {
  readonly words: string
  readonly write: string
  readonly into: NonNullable<Edit['into']> | null
}

/** What a build puts its own base path in place of. */
const ofBuild: Readonly<Record<string, string>> = {
  vite: 'import.meta.env.BASE_URL',
  'react-scripts': 'process.env.PUBLIC_URL',
  'vue-cli': 'process.env.BASE_URL',
}
