import { describeOrigin } from '../../model/reading.ts'
import type { Edit } from '../../model/report.ts'
import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'
import { serverTemplate } from './server-template.ts'

/** The build makes a program, not a folder of files. */
export const needsServer = defineCheck({
  code: 'project/needs-server',
  severity: 'blocker',
  title: 'This build is a program that must run on a server',
  keywords: ['SSR', 'server-side rendering', 'adapter', 'static export'],
  run: async (evidence) => [...withoutPage(evidence), ...(await serverTemplate(evidence))],
})

function withoutPage(evidence: Evidence): Cause[] {
  const { survey, facts, folder, failing, unanswered } = evidence
  const { output, definition } = survey
  if (!folder.present || facts.length === 0 || output?.value !== 'server' || !definition) return []
  if (facts.some(({ path }) => path === evidence.host.directoryIndex)) return []
  const said =
    'file' in output.from
      ? `${describeOrigin(output.from)} requests it`
      : `${definition.title} builds for a server unless it is configured otherwise`
  return [
    {
      key: 'server',
      impact: 'An error page at every address: a host of files has no page to send.',
      cause: `${folder.name} is a server build without an entry page; ${said}.`,
      places: [folder.path],
      source: 'file' in output.from ? output.from : (survey.config?.insertAt ?? null),
      fix: {
        steps: [definition.fixes.makeStatic ?? 'Switch the framework to static output.', rebuild(evidence)],
        edits: editsOf(evidence),
      },
      claims: [...failing, ...unanswered],
    },
  ]
}

/** Settings of the configuration that is there, or words of the script that runs the build. */
function editsOf({ survey: { definition, config, build }, requested, site }: Evidence): Edit[] {
  const { settings, command } = definition?.fixes.staticBy ?? {}
  if (command && build?.at)
    return [{ file: build.at.file, line: build.at.line, instead: command[0], write: command[1] }]
  if (!config || !settings) return []
  const routes = requested.routes.map(({ path }) => `/${path.slice(site.base.length)}`)
  return settings(routes.filter((route) => plainRoute.test(route))).map((write) => ({
    file: config.file,
    line: null,
    write,
  }))
}

/** A route that can stand in a text of a configuration. */
const plainRoute = /^[\w/~.-]+$/
