import { defineCheck } from '../check.ts'
import { listed } from '../live-causes.ts'

/** A route is answered otherwise than the host model predicted. */
export const liveRouteDiffers = defineCheck({
  code: 'live/route-differs',
  severity: 'blocker',
  title: 'Routes answer otherwise than predicted',
  keywords: ['fallback', 'rewrite', 'deep link', '404'],
  run: listed(
    (live) => live.routes,
    (first, all, { host }) => ({
      impact: `${first.path}${all.length > 1 ? ` and ${all.length - 1} more` : ''} opens otherwise at the address than the host "${host.name}" predicted.`,
      cause: first.detail,
      severity: all.some(({ status, expected }) => (status ?? 599) >= 400 && expected < 400)
        ? 'blocker'
        : 'caution',
      steps: [
        'Give the host the rules that this check was given, or check with the host as it is.',
        'Where another page comes: see whether an older folder, or another one, is served.',
      ],
    }),
  ),
})
