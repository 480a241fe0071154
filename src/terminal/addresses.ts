import type { Finding, Report } from '../core/model/report.ts'
import { counted } from '../core/model/text.ts'
import { cut, cutMiddle, type Style } from './style.ts'

/** Which of several addresses this one build fits, and what each other one needs. */
export function addressTable(
  { sites, findings }: Pick<Report, 'sites' | 'findings'>,
  { colors, width }: Style,
): string[] {
  const longest = Math.min(Math.floor(width * 0.5), Math.max(...sites.map(({ address }) => address.length)))
  return [
    `  ${colors.bold('Addresses')}`,
    ...sites.flatMap(({ address, verdict, blockers, cautions }) => {
      const word = verdict === 'held' ? colors.red('held ') : colors.green('clear')
      const counts =
        blockers + cautions === 0
          ? 'this build fits'
          : `${counted(blockers, 'blocker')}, ${counted(cautions, 'caution')}`
      const head = `    ${cutMiddle(address, longest).padEnd(longest + 2)}${word}  ${counts}`
      return [head, ...needs(address, findings).map((need) => `      ${colors.dim(cut(need, width - 6))}`)]
    }),
  ]
}

/** What holds this address and not all of them, a line each. */
function needs(address: string, findings: readonly Finding[]): string[] {
  return findings
    .filter(({ sites, severity, waived }) => sites.includes(address) && severity === 'blocker' && !waived)
    .map(({ code, fix: { edits, steps } }) => {
      const [edit] = edits
      const where = edit ? ` in ${edit.file}${edit.line === null ? '' : `:${edit.line}`}` : ''
      const what = edit && !edit.write.includes('\n') ? `${edit.write}${where}` : (steps[0] ?? '')
      return `needs ${what}  (${code})`
    })
}
