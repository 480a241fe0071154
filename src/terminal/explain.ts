import type { Judge } from '../core/checks/check.ts'
import { type Style, wrap } from './style.ts'

/** What a finding code means. */
export function renderExplanation(
  judge: Judge,
  { colors, width }: Style,
  framework: string | null = null,
): string {
  const paragraph = (text: string): string[] => wrap(text, width - 4).map((line) => `  ${line}`)
  const lines = [`${colors.bold(judge.code)}  ${judge.title}`, '', ...paragraph(judge.meaning)]
  lines.push('', colors.cyan('example'), ...paragraph(judge.example))
  const here = framework === null ? undefined : judge.remedies[framework]
  if (here !== undefined) lines.push('', colors.cyan(`mend, with ${framework}, as here`), ...paragraph(here))
  lines.push('', colors.cyan('mend'), ...paragraph(judge.remedies.any))
  for (const [name, remedy] of Object.entries(judge.remedies)) {
    if (name === 'any' || name === framework) continue
    lines.push('', colors.cyan(`mend, with ${name}`), ...paragraph(remedy))
  }
  return `${lines.join('\n')}\n`
}
