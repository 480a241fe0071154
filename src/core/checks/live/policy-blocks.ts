import { defineCheck } from '../check.ts'
import { listed } from '../live-causes.ts'

/** The pages come with a policy that their own scripts do not meet. */
export const livePolicyBlocks = defineCheck({
  code: 'live/policy-blocks',
  severity: 'blocker',
  title: 'A policy stops the own scripts of the site',
  keywords: ['Content-Security-Policy', 'CSP', 'script-src', 'refused to load'],
  run: listed(
    (live) => (live.policy ? [live.policy] : []),
    (first) => ({
      impact: 'The pages do not start: browsers load none of their scripts.',
      cause: first.detail,
      steps: ["Let script-src name 'self', or the origin that the scripts come from."],
    }),
  ),
})
