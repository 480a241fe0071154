import { describeOrigin } from '../../model/reading.ts'
import type { RouteAnswer } from '../../model/report.ts'
import { counted } from '../../model/text.ts'
import { type Cause, type Evidence, type Judge, rebuild, type Showing } from '../judge.ts'

/** A route that a visitor can open directly gets an error. */
export const noAnswer: Judge = {
  code: 'route/no-answer',
  severity: 'blocker',
  title: 'Pages answer an error when opened directly',
  meaning:
    'A route works while clicking through the site, because the router runs in the browser. Opened directly, shared or ' +
    'reloaded, it is asked of the host, which has no file for it and no rule that sends the entry document.',
  example:
    'The host serves plain files. /crossings/sailings/42 is no file and no directory, so a shared link answers 404.',
  remedies: {
    any:
      'Tell the host to answer unknown paths below the base with the entry document and status 200; or prerender the ' +
      'routes to files; or use a hash router. When the host does so already, check with --host fallback.',
  },
  after: ['project/needs-server', 'project/site-nested'],
  judge,
}

function judge(evidence: Evidence): Cause[] {
  const { unanswered, site, host, folder } = evidence
  if (!folder.present || evidence.facts.length === 0) return []
  const root = unanswered.find(({ path }) => path === site.base)
  const others = unanswered.filter((route) => route !== root)
  const causes: Cause[] = []
  if (root) causes.push(noEntry(root, evidence))
  else if (others.length > 0) {
    causes.push({
      key: 'routes',
      severity: evidence.hostGiven ? 'blocker' : 'caution',
      meets: `An error page (${others[0]?.status}) when ${others[0]?.path} is opened directly, shared or reloaded${others.length > 1 ? `, and on ${counted(others.length - 1, 'other route')}` : ''}.`,
      cause: `The host "${host.name}" has no file for ${others.length === 1 ? 'this route' : 'these routes'} and no rule for unknown paths${evidence.hostGiven ? '' : '; no host was named, so plain files are assumed'}.`,
      showings: others.map((route) => showingOf(route, evidence)),
      source: null,
      remedy: {
        steps: [
          `Let the host answer unknown paths below ${site.base} with ${site.base}index.html and status 200.`,
          'If it does so already, check with --host fallback.',
        ],
        change: null,
      },
    })
  }
  return causes
}

function noEntry(root: RouteAnswer, evidence: Evidence): Cause {
  const { folder, host } = evidence
  return {
    key: 'entry',
    title: 'The site itself answers an error',
    meets: `An error page (${root.status}) at the site's own address.`,
    cause: `${folder.path} holds no ${host.directoryIndex}.`,
    showings: [showingOf(root, evidence)],
    source: null,
    remedy: {
      steps: [
        `Build so that ${folder.path}/${host.directoryIndex} is written, or name the directory that holds it with --folder.`,
        rebuild(evidence),
      ],
      change: null,
    },
  }
}

function showingOf({ path, from, status }: RouteAnswer, { site, folder }: Evidence): Showing {
  const known = 'file' in from ? { source: from } : {}
  const file = 'file' in from ? folder.path : `${folder.path} (${describeOrigin(from)})`
  return { file, offset: null, length: 0, request: site.origin + path, status, ...known }
}
