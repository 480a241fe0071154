import type { Place } from './reading.ts'

/** One rule of a host: requests of one form get another answer than their own file. */
export interface Rule {
  /** A path from the top of the origin. `:name` stands for one step, `*` at the end for all that follows. */
  readonly from: string
  /** A path or URL, with `:name` and `:splat` filled in; null when the status alone is the answer. */
  readonly to: string | null
  /** 200 sends what is at `to`; 3xx sends the visitor there; 4xx sends it as an error's document. */
  readonly status: number
  /** Whether it holds for paths that are files too. Without it a file that exists wins. */
  readonly forced: boolean
  /** What else must hold, in the words of the rule file. Nobody can say beforehand, so such a rule is passed over. */
  readonly conditions: readonly string[]
  /** It holds only where the answer would have one of these statuses. */
  readonly onStatus?: readonly number[]
  readonly place: Place | null
}

/** The values that a rule's placeholders take for a path, or null when it does not fit. */
export function matchRule({ from }: Pick<Rule, 'from'>, path: string): ReadonlyMap<string, string> | null {
  const wanted = stepsOf(from)
  const given = stepsOf(path)
  const found = new Map<string, string>()
  for (const [index, step] of wanted.entries()) {
    if (step === '*') {
      found.set('splat', given.slice(index).join('/'))
      return found
    }
    const own = given[index]
    if (own === undefined) return null
    if (step.startsWith(':')) found.set(step.slice(1), own)
    else if (step !== own) return null
  }
  return given.length === wanted.length ? found : null
}

/** A last slash makes no other path for a rule. */
export function stepsOf(path: string): string[] {
  let end = path.length
  while (end > 0 && path.charCodeAt(end - 1) === 47) end--
  return path.slice(0, end).split('/').slice(1)
}

/** Where a rule leads, its placeholders filled in. */
export function targetOf({ to }: Pick<Rule, 'to'>, values: ReadonlyMap<string, string>): string | null {
  return to === null ? null : to.replace(/:(\w+)/g, (whole, name: string) => values.get(name) ?? whole)
}

/** A rule as a person reads it. */
export function describeRule({ from, to, status, forced, onStatus }: Rule): string {
  const after = onStatus ? `, in place of ${onStatus.join(' or ')}` : ''
  return `${from} → ${to ?? 'nothing'} ${status}${forced ? ', files too' : ''}${after}`
}
