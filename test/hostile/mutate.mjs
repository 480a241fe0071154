// Folders made of sound ones by a few random changes, the same for the same seed.

/** A small generator of numbers below 1, told apart by its seed (mulberry32). */
export function random(seed) {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let mixed = Math.imul(state ^ (state >>> 15), state | 1)
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296
  }
}

/** What readers stumble over: ends of texts, names that every object has, halves of characters, brackets. */
const tokens = [
  '\0',
  '\ud800',
  '\udfff',
  '\u202e',
  '\u2028',
  '\ufeff',
  '\x1b[31m',
  '\r',
  '\n',
  ' ',
  '"',
  "'",
  '`',
  '\\',
  '\\u',
  '\\x0',
  '${',
  '{{',
  '}}',
  '<%',
  '<!--',
  '-->',
  '<script>',
  '</script>',
  '<base href="',
  '<![CDATA[',
  ']]>',
  '&#x',
  '&#1114112;',
  '/*',
  '*/',
  '//',
  '/',
  '../',
  '%',
  '%zz',
  '%2e%2e%2f',
  '?',
  '#',
  '@',
  ':',
  '::',
  '*',
  '**',
  '[',
  ']',
  '{',
  '}',
  '(',
  ')',
  '=>',
  '...',
  '-',
  '--',
  '0',
  '-1',
  '1e999',
  'null',
  'undefined',
  'NaN',
  'true',
  '__proto__',
  'constructor',
  'toString',
  'hasOwnProperty',
  'javascript:',
  'data:,',
  'file:///',
  '//other.example',
  'http://localhost:1',
  'https://[',
  'import',
  'export default',
  'await',
  'function',
  'return',
  '&a ',
  '*a',
  '<<: *a',
  '!!js/function',
  '---',
  '= ',
  '[[',
  'a.b.c=',
]

const names = [
  '__proto__',
  'constructor',
  '../out',
  'a/../b.js',
  '.',
  '..',
  ' ',
  'a\nb.html',
  'a\u202eb.js',
  '%2e%2e',
  'a b.html',
  'CON',
  '-rf',
  'a?b.js',
  'a#b.js',
  '\ud800.js',
  '.env',
  '.git/config',
  'index.html/index.html',
  'a'.repeat(300),
]

/** One folder with one to four changes. */
export function mutated(folders, seed) {
  const next = random(seed)
  const pick = (list) => list[Math.floor(next() * list.length)]
  const files = { ...pick(folders) }
  for (let changes = 1 + Math.floor(next() * 4); changes > 0; changes--) change(files, { next, pick })
  return files
}

function change(files, { next, pick }) {
  const path = pick(Object.keys(files))
  if (path === undefined) return
  const text = files[path]
  const at = Math.floor(next() * (text.length + 1))
  const to = Math.min(text.length, at + Math.floor(next() * 40))
  const kind = Math.floor(next() * 9)
  if (kind === 0) files[path] = text.slice(0, at)
  else if (kind === 1) files[path] = text.slice(0, at) + text.slice(to)
  else if (kind === 2)
    files[path] = text.slice(0, at) + text.slice(at, to).repeat(1 + Math.floor(next() * 200)) + text.slice(to)
  else if (kind === 3) files[path] = text.slice(0, at) + pick(tokens) + text.slice(to)
  else if (kind === 4)
    files[path] = text.slice(0, at) + pick(tokens).repeat(1 + Math.floor(next() * 2_000)) + text.slice(at)
  else if (kind === 5) files[path] = files[pick(Object.keys(files))] ?? ''
  else if (kind === 6) files[pick(names)] = text
  else if (kind === 7) delete files[path]
  else files[path] = text.slice(at) + text.slice(0, at)
}

/** Fewer and shorter files that fail alike. @param fails tells whether a folder still does */
export async function shrunk(files, fails) {
  let least = files
  for (const path of Object.keys(files)) {
    const { [path]: _, ...others } = least
    if (Object.keys(others).length > 0 && (await fails(others))) least = others
  }
  for (const path of Object.keys(least)) {
    for (let size = Math.ceil(least[path].length / 2); size > 0; size = Math.floor(size / 2)) {
      for (let at = 0; at < least[path].length; ) {
        const text = least[path]
        const shorter = { ...least, [path]: text.slice(0, at) + text.slice(at + size) }
        if (await fails(shorter)) least = shorter
        else at += size
      }
    }
  }
  return least
}
