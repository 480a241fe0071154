import type { Report } from '../core/model/report.ts'
import { counted, grouped } from '../core/model/text.ts'
import { findingLines } from './report.ts'
import type { Style } from './style.ts'

const words = {
  missing: 'missing',
  refused: 'refused',
  'page instead': 'a page instead',
  older: 'old',
  'other content': 'other content',
  'changed on the way': 'changed on the way',
  'no answer': 'no answer',
} as const

/** How much of a folder its address serves, and then the findings with their fixes. */
export function renderLive(report: Report, style: Style): string {
  const { colors } = style
  const held = report.verdict === 'held'
  const badge = held ? colors.bold(colors.red('HELD ')) : colors.bold(colors.green('CLEAR'))
  const lines = [`${badge}  ${colors.bold(report.sites[0]?.address ?? '')}`]
  const { live } = report
  if (live) lines.push(`       ${arrived(live)}; ${(live.milliseconds / 1000).toFixed(2)} s`)
  for (const finding of report.findings) lines.push('', ...findingLines(finding, report, style))
  return `${lines.join('\n')}\n`
}

/** `412 of 418 files as built; 5 old; 1 missing`. */
function arrived({ files, asBuilt, differing, routes }: NonNullable<Report['live']>): string {
  const counts = new Map<string, number>()
  for (const { state } of differing) counts.set(words[state], (counts.get(words[state]) ?? 0) + 1)
  const whole = asBuilt === files && files > 0 ? `Arrived: all ${counted(files, 'file')} as built` : null
  const others = [...counts].map(([state, count]) => `${grouped(count)} ${state}`)
  const differ = routes.length > 0 ? [`${counted(routes.length, 'route')} otherwise than predicted`] : []
  return [whole ?? `${grouped(asBuilt)} of ${counted(files, 'file')} as built`, ...others, ...differ].join(
    '; ',
  )
}
