import { describeRule, matchRule, type Rule } from '../../model/rule.ts'
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
    return rules.flatMap((rule, index) => {
      const earlier = rules.slice(0, index).find((each) => covers(each, rule))
      if (earlier) return [byRule(rule, earlier)]
      return isFile(rule, evidence) ? [byFile(rule, evidence)] : []
    })
  },
})

/** Whether a rule takes all that another would. */
function covers(earlier: Rule, later: Rule): boolean {
  if (earlier.conditions.length > 0 || (later.forced && !earlier.forced)) return false
  const open = later.from.endsWith('*')
  if (open && !earlier.from.endsWith('*')) return false
  // Names that stand for any step: what takes these takes all.
  const example = later.from.replace(/:\w+/g, 'any-step-7f').replace(/\*$/, 'any-step-7f')
  return (
    matchRule(earlier, example) !== null &&
    (!open || matchRule(earlier, example.replace(/\/any-step-7f$/, '')) !== null)
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
