import { type Rule, stepsOf } from './rule.ts'

interface Node {
  /** By the next step, as it is written; `:` stands for any. */
  readonly next: Map<string, Node>
  /** Rules that end here, and those that take all that follows, as they may come first. */
  readonly ends: Earliest
  readonly takes: Earliest
}

/** The first rule of each sort, by its place in the list: no later one of that sort ever applies. */
interface Earliest {
  forced: number
  plain: number
}

/** Which rules count: all, without those that a file wins against, and without those that take one path alone. */
interface Wanted {
  readonly onlyForced?: boolean
  readonly onlyOpen?: boolean
}

/** Branches that are looked into for one path; rules that ask for more are written to keep a reader busy. */
const mostLooks = 5_000

const never = Number.POSITIVE_INFINITY

/** Rules by the steps of their paths, so that a list of thousands is not gone through for every request. */
export class RuleIndex {
  readonly #rules: readonly Rule[]
  readonly #root = made()

  constructor(rules: readonly Rule[]) {
    this.#rules = rules
    for (const [index, rule] of rules.entries())
      if (rule.conditions.length === 0 && !rule.onStatus) this.#add(rule, index)
  }

  /** The first rule without conditions whose path fits. */
  first(path: string, { onlyForced = false, onlyOpen = false }: Wanted): Rule | null {
    const steps = stepsOf(path)
    let found = never
    let looks = 0
    const take = ({ forced, plain }: Earliest): void => {
      found = Math.min(found, forced, onlyForced ? never : plain)
    }
    const look = (node: Node, depth: number): void => {
      if (looks++ > mostLooks) return
      take(node.takes)
      const step = steps[depth]
      if (step === undefined) {
        if (!onlyOpen) take(node.ends)
        return
      }
      for (const next of [node.next.get(`=${step}`), node.next.get(':')]) if (next) look(next, depth + 1)
    }
    look(this.#root, 0)
    return this.#rules[found] ?? null
  }

  #add({ from, forced }: Rule, index: number): void {
    let node = this.#root
    const sort = forced ? 'forced' : 'plain'
    for (const step of stepsOf(from)) {
      if (step === '*') {
        node.takes[sort] = Math.min(node.takes[sort], index)
        return
      }
      const key = step.startsWith(':') ? ':' : `=${step}`
      const next = node.next.get(key) ?? made()
      node.next.set(key, next)
      node = next
    }
    node.ends[sort] = Math.min(node.ends[sort], index)
  }
}

function made(): Node {
  return { next: new Map(), ends: { forced: never, plain: never }, takes: { forced: never, plain: never } }
}

const indices = new WeakMap<readonly Rule[], RuleIndex>()

/** The index of a host's rules, made once. */
export function indexOf(rules: readonly Rule[]): RuleIndex {
  const known = indices.get(rules)
  if (known) return known
  const index = new RuleIndex(rules)
  indices.set(rules, index)
  return index
}
