import fc from 'fast-check'
import { expect, test } from 'vitest'
import { matchRule, type Rule } from './rule.ts'
import { RuleIndex } from './rule-index.ts'

const rule = (from: string, forced = false, conditions: string[] = []): Rule => ({
  from,
  to: '/x',
  status: 200,
  forced,
  conditions,
  place: null,
})

test('the first rule that fits is the one that a walk through the list finds', () => {
  const step = fc.constantFrom('a', 'b', ':one', ':two', '')
  const from = fc
    .tuple(fc.array(step, { maxLength: 3 }), fc.constantFrom('', '/*'))
    .map(([steps, end]) => `/${steps.join('/')}${end}`)
  const anyRule = fc
    .tuple(from, fc.boolean(), fc.constantFrom<string[]>([], ['a country']))
    .map(([path, forced, conditions]) => rule(path, forced, conditions))
  const path = fc
    .array(fc.constantFrom('a', 'b', 'c', ''), { maxLength: 5 })
    .map((steps) => `/${steps.join('/')}`)
  fc.assert(
    fc.property(fc.array(anyRule, { maxLength: 12 }), path, fc.boolean(), (rules, asked, onlyForced) => {
      const walked = rules.find(
        (each) =>
          each.conditions.length === 0 && (each.forced || !onlyForced) && matchRule(each, asked) !== null,
      )
      expect(new RuleIndex(rules).first(asked, { onlyForced })).toBe(walked ?? null)
    }),
    { numRuns: 2_000 },
  )
})

test('rules of very many steps that all may fit end', () => {
  const rules = Array.from({ length: 4_096 }, (_, bits) =>
    rule(`/${Array.from({ length: 12 }, (__, at) => ((bits >> at) & 1 ? 'a' : ':x')).join('/')}/end`),
  )
  expect(new RuleIndex(rules).first(`/${'a/'.repeat(12)}other`, {})).toBeNull()
})
