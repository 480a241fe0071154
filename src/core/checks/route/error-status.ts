import type { RouteAnswer } from '../../model/report.ts'
import { counted } from '../../model/text.ts'
import { type Cause, type CausePlace, defineCheck, type Evidence } from '../check.ts'
import { fallbackRules } from '../fallback-rules.ts'

/** A route works for eyes and is an error for machines. */
export const errorStatus = defineCheck({
  code: 'route/error-status',
  severity: 'caution',
  title: 'Pages open with the status of an error',
  keywords: ['404.html', 'status 404', 'SEO'],
  after: ['project/needs-server', 'project/site-nested'],
  run,
})

async function run(evidence: Evidence): Promise<Cause[]> {
  const starting = evidence.unanswered.filter((route) => startsTheApp(route, evidence))
  const first = starting[0]
  if (!first) return []
  const many = starting.length > 1
  return [
    {
      key: 'routes',
      impact: `The page opens, but machines learn that ${first.path}${many ? ` and ${counted(starting.length - 1, 'other route')}` : ''} ${many ? 'do' : 'does'} not exist (${first.status}).`,
      cause: `The host "${evidence.host.name}" answers unknown paths with ${first.entryFile} as an error, and that document starts the application.`,
      places: starting.map((route) => showingOf(route, evidence)),
      fix: await fallbackRules(evidence),
      claims: starting,
    },
  ]
}

/** The document sent with the error runs a script that the entry document runs too. */
function startsTheApp({ by, entryFile }: RouteAnswer, { facts, site }: Evidence): boolean {
  if (by !== 'not-found document' || entryFile === null) return false
  if (entryFile === 'index.html') return true
  const scriptsOf = (path: string): string[] => {
    const file = facts.find((each) => each.path === path)
    return [...(file?.references ?? [])]
      .filter(({ kind }) => kind === 'script' || kind === 'import' || kind === 'lazy-import')
      .map(({ raw }) => new URL(raw, site.address).pathname)
  }
  const own = scriptsOf(entryFile)
  return scriptsOf('index.html').some((script) => own.includes(script))
}

function showingOf({ path, from, status, entryFile }: RouteAnswer, { site }: Evidence): CausePlace {
  return {
    file: entryFile ?? 'index.html',
    offset: null,
    length: 0,
    request: site.origin + path,
    status,
    ...('file' in from ? { source: from } : {}),
  }
}
