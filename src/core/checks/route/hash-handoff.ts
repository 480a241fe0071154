import { describeRule } from '../../model/rule.ts'
import { type Cause, defineCheck, type Evidence } from '../check.ts'

/** One side of a hand-over through the fragment is missing. */
export const hashHandoff = defineCheck({
  code: 'route/hash-handoff',
  severity: 'caution',
  title: 'A route is passed behind a hash, and one side of it is missing',
  keywords: ['hash router', '#!'],
  run,
})

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
        source: rule.place,
        fix: [
          'Before the router starts, replace an address with "#!" by the path behind it; or let the rule send the entry document with status 200.',
        ],
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
      source: waiting,
      fix: [`Add the rule that sends unknown paths to ${evidence.site.base}#!/ with the path behind it.`],
    },
  ]
}
