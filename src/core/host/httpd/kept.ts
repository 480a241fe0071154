import type { Merged } from './merged.ts'

const units: Readonly<Record<string, number>> = {
  second: 1,
  minute: 60,
  hour: 3_600,
  day: 86_400,
  week: 604_800,
  month: 2_592_000,
  year: 31_536_000,
}

/** For how long a browser keeps a file, by `Cache-Control` and mod_expires; null where nothing is said. Seconds. */
export function keptForOf({ cacheControl, expires }: Merged, contentType: string | null): number | null {
  const said = cacheControl.join(',')
  if (/\bno-(?:cache|store)\b/i.test(said)) return 0
  const [, age] = /\bmax-age=(\d+)/i.exec(said) ?? []
  if (age !== undefined) return Number(age)
  const written = expires.get(contentType ?? '') ?? expires.get('*')
  if (written === undefined) return null
  const [, code] = /^[AM](\d+)$/.exec(written) ?? []
  if (code !== undefined) return Number(code)
  const words = written.toLowerCase().split(/\s+/)
  return words.reduce(
    (sum, word, at) => sum + (Number(words[at - 1]) || 0) * (units[word.replace(/s$/, '')] ?? 0),
    0,
  )
}
