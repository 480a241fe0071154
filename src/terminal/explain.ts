import type { Check } from '../core/checks/check.ts'
import type { Explanation } from '../core/checks/explanation.ts'
import { pasted } from './report.ts'
import { type Style, wrap } from './style.ts'

/** What a finding code means; the fix for a framework first, where one is named. */
export function renderExplanation(
  { code, title }: Check,
  { meaning, example, fix, fixWith = {} }: Explanation,
  { colors, width }: Style,
  framework: string | null = null,
  texts: readonly { readonly title: string; readonly text: string }[] = [],
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
  for (const { title, text } of texts) lines.push('', ...pasted(title, text, colors))
  return `${lines.join('\n')}\n`
}
