/**
 * What only a development build holds: a name for it, and a text that no production build has. Checked on the builds of
 * the corpus and on bundles of well-known libraries.
 */
const signs: readonly (readonly [string, string])[] = [
  ['the JSX runtime of development', 'jsxDEV('],
  ['the JSX runtime of development', '.jsxDEV)('],
  ["React's development build", 'Download the React DevTools'],
  ['modules that are evaluated from texts', 'sourceURL=webpack'],
  ['a client for hot replacement', 'webpackHotUpdate'],
  ['a client for hot replacement', 'HMR_HOST'],
  ["Angular's debug information", 'setClassDebugInfo('],
]

/** The signs of a development build in a script. */
export function developmentSigns(code: string): string[] {
  return [...new Set(signs.filter(([, text]) => code.includes(text)).map(([name]) => name))]
}
