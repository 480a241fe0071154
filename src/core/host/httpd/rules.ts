import type { Place } from '../../model/reading.ts'
import { serverPattern } from '../server-pattern.ts'
import type { Directive } from './directives.ts'

/** A condition of the rule behind it. */
export interface Condition {
  readonly tested: string
  readonly wanted: string
  readonly ignoresCase: boolean
  /** Joined to the next one by "or". */
  readonly isOr: boolean
  readonly place: Place
}

/** A `RewriteRule` with its conditions. */
export interface RewriteRule {
  /** Null where the pattern is not followed. */
  readonly pattern: RegExp | null
  readonly isNegated: boolean
  readonly target: string
  readonly conditions: readonly Condition[]
  readonly flags: ReadonlyMap<string, string>
  readonly place: Place
}

const longNames: Readonly<Record<string, string>> = {
  last: 'L',
  redirect: 'R',
  forbidden: 'F',
  gone: 'G',
  nocase: 'NC',
  noescape: 'NE',
  qsappend: 'QSA',
  qsdiscard: 'QSD',
  passthrough: 'PT',
  proxy: 'P',
  skip: 'S',
  chain: 'C',
  next: 'N',
  env: 'E',
  cookie: 'CO',
  type: 'T',
  handler: 'H',
  discardpath: 'DPI',
  ornext: 'OR',
}

/** The rules of one block, each with the conditions in front of it. */
export function rewriteRules(block: readonly Directive[]): RewriteRule[] {
  const rules: RewriteRule[] = []
  let conditions: Condition[] = []
  for (const { name, args, place } of block) {
    if (name === 'rewritecond') {
      const [tested = '', wanted = '', flags] = args
      const set = flagsIn(flags)
      conditions.push({ tested, wanted, ignoresCase: set.has('NC'), isOr: set.has('OR'), place })
    } else if (name === 'rewriterule') {
      const [source = '', target = '-', written] = args
      const flags = flagsIn(written)
      const isNegated = source.startsWith('!')
      const pattern = serverPattern(isNegated ? source.slice(1) : source, flags.has('NC'))
      rules.push({ pattern, isNegated, target, conditions, flags, place })
      conditions = []
    }
  }
  return rules
}

function flagsIn(written = ''): Map<string, string> {
  const flags = written.replace(/^\[|\]$/g, '').split(',')
  return new Map(
    flags.flatMap((flag): [string, string][] => {
      const [name = '', ...value] = flag.trim().split('=')
      const known = Object.hasOwn(longNames, name.toLowerCase()) ? longNames[name.toLowerCase()] : undefined
      return name === '' ? [] : [[known ?? name.toUpperCase(), value.join('=')]]
    }),
  )
}
