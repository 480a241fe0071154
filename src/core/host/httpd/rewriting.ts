import type { Place } from '../../model/reading.ts'
import type { Unclear } from '../sent.ts'
import { serverPattern } from '../server-pattern.ts'
import type { Condition, RewriteRule } from './rules.ts'

/** What rules see of a request. */
export interface Rewritable {
  /** A variable of the request; null for one that nobody knows beforehand. */
  variable(name: string): string | null
  kindOf(path: string): 'file' | 'directory' | null
  /** Called with what is not followed. */
  unclear(what: Unclear): void
}

/** What rules make of a path. */
export interface Rewritten {
  /** The path, or the address; null where nothing was changed. */
  readonly path: string | null
  readonly rule: RewriteRule
  /** The status of an answer that ends it all: a redirect, 403, 410. */
  readonly status: number | null
  readonly isPassed: boolean
  /** Whether no rules are tried again. */
  readonly isEnd: boolean
}

/** What rules are run over. */
export interface Seen {
  readonly path: string
  /** What is behind the part of a path that is on the disk: rules of a directory see it again after each change. */
  readonly rest: string
  /** What stands before what rules of a directory see. */
  readonly prefix: string
}

/** Runs a list of rules, one behind the other. */
export function rewrite(
  rules: readonly RewriteRule[],
  { path, rest, prefix }: Seen,
  request: Rewritable,
): Rewritten | null {
  let behind = rest
  let at = path
  let last: Rewritten | null = null
  for (let index = 0; index < rules.length; index++) {
    const rule = rules[index] as RewriteRule
    const made = applied(rule, at + behind, prefix, request)
    if (!made) {
      if (rule.flags.has('C')) while (rules[index]?.flags.has('C')) index++
      continue
    }
    if (rule.flags.has('N')) request.unclear({ what: 'the flag N', place: rule.place })
    if (made.path !== null) at = made.path
    if (rule.flags.has('DPI')) behind = ''
    if (made.path !== null || made.status !== null) last = { ...made, path: made.path ?? at }
    const isLast = made.status !== null || made.isPassed || made.isEnd || rule.flags.has('L')
    if (isLast) return last
    index += Number(rule.flags.get('S') ?? 0)
  }
  return last
}

function applied(rule: RewriteRule, path: string, prefix: string, request: Rewritable): Rewritten | null {
  const seen = path.startsWith(prefix) ? path.slice(prefix.length) : path
  if (!rule.pattern) request.unclear({ what: 'a pattern', place: rule.place })
  const match = rule.pattern?.exec(seen) ?? null
  if ((match !== null) === rule.isNegated || !rule.pattern) return null
  const groups = { rule: match ?? [], condition: [] as readonly (string | undefined)[] }
  if (!holds(rule.conditions, groups, request)) return null
  const { flags, target } = rule
  const common = { rule, isPassed: flags.has('P'), isEnd: flags.has('END') }
  if (flags.has('F') || flags.has('G')) return { ...common, path: null, status: flags.has('F') ? 403 : 410 }
  const status = flags.has('R') ? statusOf(flags.get('R') ?? '') : null
  if (target === '-')
    return { ...common, path: null, status: status !== null && status >= 400 ? status : null }
  const written = expand(target, groups, rule.place, request).split('?', 1)[0] ?? ''
  const isAway = /^[a-z][a-z+.-]*:\/\//i.test(written)
  const whole = isAway || written.startsWith('/') ? written : prefix + written
  return { ...common, path: whole, status: status ?? (isAway && !common.isPassed ? 302 : null) }
}

function statusOf(written: string): number {
  return /^\d{3}$/.test(written) ? Number(written) : ({ permanent: 301, seeother: 303 }[written] ?? 302)
}

interface Groups {
  rule: readonly (string | undefined)[]
  condition: readonly (string | undefined)[]
}

/** Conditions are joined by "and", those with the flag OR by "or". */
function holds(conditions: readonly Condition[], groups: Groups, request: Rewritable): boolean {
  for (let at = 0; at < conditions.length; at++) {
    const met = isMet(conditions[at] as Condition, groups, request)
    if (met) while (conditions[at]?.isOr) at++
    else if (!conditions[at]?.isOr) return false
  }
  return true
}

function isMet(
  { tested, wanted, ignoresCase, place }: Condition,
  groups: Groups,
  request: Rewritable,
): boolean {
  const text = expand(tested, groups, place, request)
  const isNegated = wanted.startsWith('!')
  const test = isNegated ? wanted.slice(1) : wanted
  const found = met(test, text)
  return found !== isNegated

  function met(test: string, text: string): boolean {
    if (/^-[dfFesxlLHhU]$/.test(test)) {
      const kind = request.kindOf(text)
      if (test === '-d') return kind === 'directory'
      if (test === '-f' || test === '-F') return kind === 'file'
      return /^-[ese]$/.test(test) ? kind !== null : false
    }
    if (test.startsWith('=')) return text === test.slice(1).replace(/^"(.*)"$/, '$1')
    if (/^[<>]|^-(?:eq|ne|lt|le|gt|ge)/.test(test) || tested === 'expr') {
      request.unclear({ what: `the condition ${test}`, place })
      return false
    }
    const pattern = serverPattern(test, ignoresCase)
    if (!pattern) request.unclear({ what: `the pattern ${test}`, place })
    const match = pattern?.exec(text) ?? null
    if (match) groups.condition = match
    return match !== null
  }
}

/** Puts groups and variables into a text. */
function expand(text: string, groups: Groups, place: Place, request: Rewritable): string {
  return text.replace(/\\(.)|\$(\d)|%(\d)|%\{([^}]+)\}|\$\{[^}]*\}/g, (whole, escaped, group, of, name) => {
    if (escaped !== undefined) return escaped
    if (group !== undefined) return groups.rule[Number(group)] ?? ''
    if (of !== undefined) return groups.condition[Number(of)] ?? ''
    const value = name === undefined ? null : request.variable(name)
    if (value === null) request.unclear({ what: whole, place })
    return value ?? ''
  })
}
