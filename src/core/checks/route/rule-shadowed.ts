import { describeRule, matchRule, type Rule } from '../../model/rule.ts'
import { indexOf } from '../../model/rule-index.ts'
import { describePlace } from '../../project/declared/rule-files.ts'
import { type Cause, defineCheck, type Evidence } from '../check.ts'

/** A rule that never comes into play. */
export const ruleShadowed = defineCheck({
  code: 'route/rule-shadowed',
  severity: 'caution',
  title: 'A rule never applies',
  keywords: ['redirect', 'rewrite rules', 'rule order'],
  run: (evidence) => {
    const { rules } = evidence.host
    const places = new Map(rules.map((rule, index) => [rule, index]))
    return rules.flatMap((rule, index) => {
      const earlier = earliestFor(rule, rules)
      if (earlier && (places.get(earlier) ?? index) < index && covers(earlier, rule))
        return [byRule(rule, earlier)]
      return isFile(rule, evidence) ? [byFile(rule, evidence)] : []
    })
  },
})

/** The first rule that takes a path which stands for all that another takes. */
function earliestFor(rule: Rule, rules: readonly Rule[]): Rule | null {
  return indexOf(rules).first(exampleOf(rule), { onlyForced: rule.forced, onlyOpen: rule.from.endsWith('*') })
}

/** Names that stand for any step: what takes these takes all. */
function exampleOf({ from }: Rule): string {
  return from.replace(/:\w+/g, 'any-step-7f').replace(/\*$/, 'any-step-7f')
}

/** Whether a rule takes all that another would. */
function covers(earlier: Rule, later: Rule): boolean {
  return (
    !later.from.endsWith('*') || matchRule(earlier, exampleOf(later).replace(/\/any-step-7f$/, '')) !== null
  )
}

function isFile({ from, forced }: Rule, { requested, site }: Evidence): boolean {
  return (
    !forced &&
    !/[:*]/.test(from) &&
    from.startsWith(site.base) &&
    requested.index.has(from.slice(site.base.length))
  )
}

function byRule(rule: Rule, earlier: Rule): Cause {
  return causeOf(
    rule,
    `the rule above it, ${describeRule(earlier)} (${describePlace(earlier.place)}), takes every path it is for`,
    [`Put ${rule.from} above ${earlier.from}.`],
  )
}

function byFile(rule: Rule, { folder }: Evidence): Cause {
  return causeOf(rule, `${folder.name} holds a file at that path, which wins`, [
    'Force the rule, or take the file out of the folder.',
  ])
}

function causeOf(rule: Rule, why: string, steps: readonly string[]): Cause {
  return {
    key: `${rule.from} ${rule.to}`,
    impact: `Not what ${rule.from} was written for: the rule is never used.`,
    cause: `${describeRule(rule)} never applies: ${why}.`,
    source: rule.place,
    fix: [...steps],
  }
}
