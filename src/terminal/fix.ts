import { type Fixable, type FixState, neededBy } from '../core/edits/outcome.ts'
import type { Finding } from '../core/model/report.ts'
import { printable } from '../core/model/text.ts'
import { type Style, wrap } from './style.ts'

const words: Readonly<Record<FixState, string>> = {
  proved: 'proved: gone after the build, and nothing new',
  'not enough': 'not enough: it is still there after the build',
  worse: 'worse: something new came with it; left out',
  'not tried': 'not tried',
  'not built': 'the build failed with it',
}

/** What is shown of one fix. */
export interface ShownFix extends Fixable {
  readonly state: FixState
}

/** The fixes, one line each with what became of it, and what has none. */
export function renderFixes(
  fixes: readonly ShownFix[],
  others: readonly Finding[],
  fresh: readonly Finding[],
  { width, colors }: Style,
): string {
  const lines = fixes.map(({ finding, edits, variables, state }) => {
    const color = state === 'proved' ? colors.green : state === 'not tried' ? colors.yellow : colors.red
    const files = [...new Set(edits.map(({ file }) => file))].join(', ')
    const names = [...variables.keys()].join(', ')
    return [
      `  ${colors.bold(printable(finding.code))}  ${printable(finding.title)}`,
      `    ${color(words[state])}`,
      ...(files ? [`    in ${printable(files)}`] : []),
      ...(names ? [`    with ${printable(names)} set for the build: set it where the build runs`] : []),
    ].join('\n')
  })
  const more = fresh.map(({ code, title, cause, places: [first] }) =>
    [
      `  ${colors.red('new')}  ${printable(code)}  ${printable(title)}`,
      ...wrap(cause, width - 4).map((line) => `    ${line}`),
      ...(first?.request ? [`    ${printable(first.request)}  ${printable(first.file)}`] : []),
    ].join('\n'),
  )
  const byHand = others.map((finding) =>
    [
      `  ${printable(finding.code)}  ${printable(finding.title)}`,
      ...wrap(finding.fix.steps[0] ?? '', width - 4).map((line) => `    ${line}`),
      ...neededBy(finding).map((name) => `    With --value ${printable(name)}=… it is tried.`),
    ].join('\n'),
  )
  return [
    ...(fixes.length > 0 ? [colors.bold('Fixes'), ...lines, ''] : []),
    ...(more.length > 0 ? [...more, ''] : []),
    ...(byHand.length > 0 ? [colors.bold('For a person'), ...byHand, ''] : []),
  ].join('\n')
}
