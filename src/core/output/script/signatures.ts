import type { Mentions } from '../words.ts'

/**
 * What only a development build holds: a name for it, and a text that no production build has. Checked on the builds of
 * the corpus and on bundles of well-known libraries. Written with a bar in them, so that a build which holds this list, as a
 * page that looks at folders does, is not taken for one.
 */
const written: readonly (readonly [string, string])[] = [
  ['the JSX runtime of development', 'jsx|DEV('],
  ['the JSX runtime of development', '.jsx|DEV)('],
  ["React's development build", 'Download the |React DevTools'],
  ['modules that are evaluated from texts', 'sourceUR|L=webpack'],
  ['a client for hot replacement', 'webpackH|otUpdate'],
  ['a client for hot replacement', 'HMR_|HOST'],
  ["Angular's debug information", 'setClassD|ebugInfo('],
]

const signs = written.map(([name, text]) => [name, text.replace('|', '')] as const)

/** What a development build is found by. */
export const signWords = signs.map(([, text]) => text)

/** The signs of a development build in a script. */
export function developmentSigns(mentions: Mentions): string[] {
  return [...new Set(signs.filter(([, text]) => mentions.has(text)).map(([name]) => name))]
}
