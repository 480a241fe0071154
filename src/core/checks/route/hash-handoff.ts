import { describeRule } from '../../model/rule.ts'
import type { Cause, Check, Evidence } from '../check.ts'

/** One side of a hand-over through the fragment is missing. */
export const hashHandoff: Check = {
  code: 'route/hash-handoff',
  severity: 'caution',
  title: 'A route is passed behind a hash, and one side of it is missing',
  keywords: ['hash router', '#!'],
  meaning:
    'Where a host can only redirect, a rule sends /sailings to /#!/sailings, and the application turns that back into a path ' +
    'before its router starts. Without the code the visitor stays on the front page; without the rule the code waits for nothing.',
  example: 'The rule /* → /#!/:splat is in place, and nothing in the sources looks at location.hash.',
  fixes: {
    any: 'Keep both: the rule, and before the router starts a line that replaces an address with "#!" by the path behind it. Or use neither, and let the host fall back to the entry document.',
  },
  after: [],
  run,
}

function run(evidence: Evidence): Cause[] {
  const { host, sources, survey } = evidence
  if (!survey.project || survey.router?.value === 'hash') return []
  const taker =
    sources.find("'#!") ?? sources.find('"#!') ?? sources.find('#!/') ?? sources.find('location.hash')
  const rule = host.rules.find(({ to }) => to !== null && /#!?\//.test(to))
  if (rule && !taker) {
    return [
      {
        key: 'nobody takes it',
        impact: `The front page instead of the one requested, at ${rule.from}.`,
        cause: `The rule ${describeRule(rule)} hands the path over behind a hash, and nothing in the sources takes it back.`,
        places: [],
        source: rule.place,
        fix: {
          steps: [
            'Before the router starts, replace an address with "#!" by the path behind it; or let the rule send the entry document with status 200.',
          ],
        },
      },
    ]
  }
  const waiting = sources.find("'#!") ?? sources.find('"#!')
  if (!waiting || rule || !evidence.unanswered.some(({ from }) => 'file' in from)) return []
  return [
    {
      key: 'nobody sends it',
      impact:
        'An error page on deep links: the application waits for an address with "#!" that no rule makes.',
      cause: `${waiting.file}:${waiting.line} turns "#!" back into a path, and no rule of the host sends one.`,
      places: [],
      source: waiting,
      fix: {
        steps: [`Add the rule that sends unknown paths to ${evidence.site.base}#!/ with the path behind it.`],
      },
    },
  ]
}
