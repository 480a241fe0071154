import type { PageValue } from '../../model/page-value.ts'

/** A public path that the running code takes from the page: the content of a meta element, or a member of the window. */
const taken =
  /(?<![\w$.])[\w$]{1,3}\.p\s?=\s*(?:document\.querySelector\((["'`])meta\[name=\\?["']?([\w:.-]{1,80})\\?["']?\]\1\)\??\.(?:content\b|getAttribute\(\s*["'`]content["'`]\s*\))|(?:window|self|globalThis)\.([\w$]{1,80}))(?=\s*[;,)}\n]|$)/

/** The key of the page's value that is this script's public path; null when it is stated, or nothing is. */
export function keptPublicPath(code: string): string | null {
  for (const written of ['.p=', '.p =']) {
    for (let at = code.indexOf(written); at >= 0; at = code.indexOf(written, at + 1)) {
      const match = taken.exec(code.slice(Math.max(0, at - 4), at + longestTaken))
      if (match) return match[2] === undefined ? `window:${match[3]}` : `meta:${match[2]}`
    }
  }
  return null
}

/** From the assignment to the end of what it takes; UTF-16 units. */
const longestTaken = 250

const written =
  /(?<![\w$.])(?:window|self|globalThis)\.([\w$]{1,80})\s*=\s*(["'`])((?:\.{0,2}\/|https?:)[^"'`\\\s]{0,400})\2/g

/** Paths that a script keeps in members of the window. Of the scripts inside pages only: longer ones write what they read. */
export function windowValuesIn(code: string): PageValue[] {
  if (code.length > 20_000) return []
  return [...code.matchAll(written)].map(([, name = '', , path = '']) => [`window:${name}`, path])
}
