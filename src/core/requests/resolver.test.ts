import fc from 'fast-check'
import { expect, test } from 'vitest'
import { parseSite } from '../model/site.ts'
import { BundleBases, ChunkRoots } from './bundle-roots.ts'
import { FolderIndex } from './folder-index.ts'
import { Resolver } from './resolver.ts'

const site = parseSite('https://skerryline.example/b/')
const index = new FolderIndex([{ path: 'index.html' }])

const piece = fc.constantFrom(
  ...[
    'a',
    'b.js',
    '/',
    '//',
    '.',
    '..',
    '../',
    './',
    '?',
    '?x=1',
    '#',
    '#y',
    '%2e',
    '%2F',
    '\\',
    ' ',
    '\t',
    '\n',
    ':',
    '@',
  ],
  ...[
    'https:',
    'http:',
    'data:,',
    'mailto:',
    'javascript:',
    'skerryline.example',
    'other.example',
    '[',
    'é',
    '\ud800',
  ],
)
const raw = fc.oneof(
  fc.array(piece, { maxLength: 6 }).map((all) => all.join('')),
  fc.webUrl(),
  fc.string({ maxLength: 12 }),
)
const base = fc.oneof(
  fc.constantFrom(
    'https://skerryline.example/b/',
    'https://skerryline.example/b/a',
    'https://skerryline.example/b/a?q',
    'https://skerryline.example/b/c/d.html',
  ),
  fc.constantFrom(
    'https://other.example/x/',
    'https://skerryline.example/b/a#z',
    'https://skerryline.example/',
  ),
)

/** What the URL standard says, by the platform's own parser. */
function standard(text: string, start: string): string | null {
  if (!URL.canParse(text, start)) return null
  const url = new URL(text, start)
  return url.origin === site.origin ? url.pathname : null
}

test('a link leads where the URL standard says, whatever was resolved before it', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(raw, base), { minLength: 1, maxLength: 12 }), (all) => {
      const resolver = new Resolver({
        site,
        index,
        observed: null,
        bases: new BundleBases([]),
        roots: new ChunkRoots([], index),
      })
      for (const [text, start] of all)
        expect(resolver.linkOf(text, start), `${JSON.stringify(text)} at ${start}`).toBe(
          standard(text, start),
        )
    }),
    { numRuns: 3_000 },
  )
})

test('what keeps the last step of its base is resolved anew for each', () => {
  const resolver = new Resolver({
    site,
    index,
    observed: null,
    bases: new BundleBases([]),
    roots: new ChunkRoots([], index),
  })
  for (const text of ['#y', '', '?x', ' ?x', '\t#y', '\n', 'https:', 'https:?x', 'https:#y'])
    for (const step of ['', 'a', 'c.html']) {
      const start = `https://skerryline.example/b/${step}`
      expect(resolver.linkOf(text, start), `${JSON.stringify(text)} at ${start}`).toBe(standard(text, start))
    }
})
