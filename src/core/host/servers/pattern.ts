import type { Rule } from '../../model/rule.ts'
import { escapePattern } from '../../model/text.ts'

/** A rule's path as a regular expression of the servers' kind (PCRE), each placeholder a group. */
export function patternOf({ from }: Pick<Rule, 'from'>): string {
  const steps = from
    .replace(/(?<!\/)\/+$/, '')
    .split('/')
    .slice(1)
  const parts = steps.map((step) => {
    if (step === '*') return '(?:/(.*))?'
    return step.startsWith(':') ? '/([^/]+)' : `/${escapePattern(step)}`
  })
  const open = steps.at(-1) === '*'
  return `^${parts.join('')}${open ? '' : '/?'}$`
}

/** A rule's target with its placeholders as references to those groups; null when it has none. */
export function targetFor(
  { from, to }: Pick<Rule, 'from' | 'to'>,
  group: (index: number) => string,
): string | null {
  if (to === null) return null
  const names = from
    .split('/')
    .filter((step) => step === '*' || step.startsWith(':'))
    .map((step) => (step === '*' ? 'splat' : step.slice(1)))
  return to.replace(/:(\w+)/g, (whole, name: string) => {
    const index = names.indexOf(name)
    return index < 0 ? whole : group(index + 1)
  })
}
