import type { Check } from '../core/checks/check.ts'
import { type Style, wrap } from './style.ts'

/** What a finding code means. */
export function renderExplanation(
  check: Check,
  { colors, width }: Style,
  framework: string | null = null,
): string {
  const paragraph = (text: string): string[] => wrap(text, width - 4).map((line) => `  ${line}`)
  const lines = [`${colors.bold(check.code)}  ${check.title}`, '', ...paragraph(check.meaning)]
  lines.push('', colors.cyan('example'), ...paragraph(check.example))
  const here = framework === null ? undefined : check.fixes[framework]
  if (here !== undefined) lines.push('', colors.cyan(`fix, with ${framework}, as here`), ...paragraph(here))
  lines.push('', colors.cyan('fix'), ...paragraph(check.fixes.any))
  for (const [name, fix] of Object.entries(check.fixes)) {
    if (name === 'any' || name === framework) continue
    lines.push('', colors.cyan(`fix, with ${name}`), ...paragraph(fix))
  }
  return `${lines.join('\n')}\n`
}
