import type { Judge } from '../../core/judge/judge.ts'
import { type Style, wrap } from './style.ts'

/** What a finding code means. */
export function renderExplanation(judge: Judge, { colors, width }: Style): string {
  const paragraph = (text: string): string[] => wrap(text, width - 4).map((line) => `  ${line}`)
  const lines = [`${colors.bold(judge.code)}  ${judge.title}`, '', ...paragraph(judge.meaning)]
  lines.push('', colors.cyan('example'), ...paragraph(judge.example))
  lines.push('', colors.cyan('mend'), ...paragraph(judge.remedies.any))
  for (const [framework, remedy] of Object.entries(judge.remedies)) {
    if (framework !== 'any') lines.push('', colors.cyan(`mend, with ${framework}`), ...paragraph(remedy))
  }
  return `${lines.join('\n')}\n`
}
