import { UsageError } from './errors.ts'
import { unknown } from './unknown.ts'

/** What a list puts in order. */
export interface Ordering<T> {
  /** What one of them is called in messages: "check". */
  readonly what: string
  readonly nameOf: (item: T) => string
  /** The names of those that go before it; `*` for all that have no `*` themselves. */
  readonly before: (item: T) => readonly string[]
  /** How messages say that one goes after another: "runs after". */
  readonly relation: string
  /** What tells two of one name apart. */
  readonly titleOf: (item: T) => string
}

/**
 * Each item after those it names, otherwise as they stand in the list.
 * @throws {UsageError} when a name stands twice, when an item names one that there is none of, or when they go in a circle
 */
export function ordered<T>(list: readonly T[], ordering: Ordering<T>): T[] {
  const { what, nameOf, before, relation, titleOf } = ordering
  const byName = new Map<string, T>()
  for (const item of list) {
    const other = byName.get(nameOf(item))
    if (other !== undefined)
      throw new UsageError(
        `Two ${what}s have the name ${nameOf(item)}: "${titleOf(other)}" and "${titleOf(item)}".`,
      )
    byName.set(nameOf(item), item)
  }
  const earlierThan = (item: T): T[] =>
    before(item).flatMap((name) => {
      if (name === '*') return list.filter((other) => !before(other).includes('*'))
      const earlier = byName.get(name)
      if (earlier !== undefined) return earlier === item ? [] : [earlier]
      throw new UsageError(
        `The ${what} ${nameOf(item)} ${relation} ${name}. ${unknown(what, name, [...byName.keys()])}`,
      )
    })
  const done = new Set<T>()
  const add = (item: T, way: readonly string[]): void => {
    if (done.has(item)) return
    const from = way.indexOf(nameOf(item))
    if (from >= 0) {
      const circle = [...way.slice(from), nameOf(item)]
      throw new UsageError(`The ${what}s go in a circle: ${circle.join(` ${relation} `)}.`)
    }
    for (const earlier of earlierThan(item)) add(earlier, [...way, nameOf(item)])
    done.add(item)
  }
  for (const item of list) add(item, [])
  return [...done]
}
