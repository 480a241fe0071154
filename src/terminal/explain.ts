import type { Check } from '../core/checks/check.ts'
import type { Explanation } from '../core/checks/explanation.ts'
import { type Style, wrap } from './style.ts'

/** What a finding code means; the fix for a framework first, where one is named. */
export function renderExplanation(
  { code, title }: Check,
  { meaning, example, fix, fixWith = {} }: Explanation,
  { colors, width }: Style,
  framework: string | null = null,
): string {
  const lines = [`${colors.bold(code)}  ${title}`]
  const add = (text: string | undefined, heading?: string): void => {
    if (text === undefined) return
    lines.push('', ...(heading === undefined ? [] : [colors.cyan(heading)]))
    lines.push(...wrap(text, width - 4).map((line) => `  ${line}`))
  }
  add(meaning)
  add(example, 'example')
  if (framework !== null) add(fixWith[framework], `fix, with ${framework}, as here`)
  add(fix, 'fix')
  for (const [name, text] of Object.entries(fixWith)) if (name !== framework) add(text, `fix, with ${name}`)
  return `${lines.join('\n')}\n`
}
