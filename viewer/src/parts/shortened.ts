/**
 * Names no longer than so many characters, shortened where they are alike: what all of them begin or end with gives way, so that what tells
 * them apart stays.
 */
export function shortenedApart(names: readonly string[], most: number): string[] {
  const head = names.length > 1 ? alike(names, (name, at) => name.charAt(at)) : 0
  const tail = names.length > 1 ? alike(names, (name, at) => name.charAt(name.length - 1 - at)) : 0
  return names.map((name) => {
    if (name.length <= most) return name
    // Whole words are easier to read than parts of them.
    const from = /^.*[/._-]/s.exec(name.slice(0, head))?.[0].length ?? 0
    const withoutHead = from > 1 ? `…${name.slice(from)}` : name
    if (withoutHead.length <= most) return withoutHead
    const end = withoutHead.length - tail
    const withoutTail = tail > 1 && end > 1 ? `${withoutHead.slice(0, end)}…` : withoutHead
    if (withoutTail.length <= most) return withoutTail
    const half = Math.max(1, Math.floor((most - 1) / 2))
    return `${withoutTail.slice(0, most - 1 - half)}…${withoutTail.slice(-half)}`
  })
}

/** How many characters all names share from one side; never all of the shortest. */
function alike(names: readonly string[], at: (name: string, index: number) => string): number {
  const [first = ''] = names
  const shortest = Math.min(...names.map(({ length }) => length))
  let shared = 0
  while (shared < shortest - 1 && names.every((name) => at(name, shared) === at(first, shared))) shared++
  return shared
}
