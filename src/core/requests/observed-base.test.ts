import { expect, test } from 'vitest'
import { noSearch } from '../model/search.ts'
import { readFile } from '../output/read-file.ts'
import { FolderIndex } from './folder-index.ts'
import { observeBase } from './observed-base.ts'

function observed(files: Record<string, string>): string | null {
  const facts = Object.entries(files).map(([path, text]) =>
    readFile(path, new TextEncoder().encode(text), noSearch),
  )
  return observeBase(facts, new FolderIndex(facts))?.base ?? null
}

test.each<[string, Record<string, string>, string | null]>([
  [
    'the prefix below which files are met',
    { 'index.html': '<script src="/b/a.js"></script>', 'a.js': '' },
    '/b/',
  ],
  ['the root', { 'index.html': '<script src="/a.js"></script>', 'a.js': '' }, '/'],
  ['two levels', { 'index.html': '<script src="/b/c/x/a.js"></script>', 'x/a.js': '' }, '/b/c/'],
  ['nothing, where no file is met', { 'index.html': '<script src="/b/a.js"></script>' }, null],
  [
    'nothing, in a build of relative URLs',
    { 'index.html': '<script src="a.js"></script>', 'a.js': 'x("/a.js")' },
    null,
  ],
  [
    'the majority, not the first seen',
    {
      'index.html': '<img src="/logo.png"><script src="/b/a.js"></script><link rel=stylesheet href=/b/a.css>',
      'a.js': '',
      'a.css': '',
      'logo.png': '',
    },
    '/b/',
  ],
  [
    '<base>, where relative URLs lean on it',
    { 'index.html': '<base href="/b/"><script src="a.js"></script>', 'a.js': '' },
    '/b/',
  ],
  ["a bundler's constant", { 'a.js': 'var r="modulepreload",e=function(e){return`/b/`+e}' }, '/b/'],
  [
    "a bundler's constant for a directory of the folder",
    { '_build/a.js': 'var r="modulepreload",e=function(e){return`/b/_build/`+e}' },
    '/b/',
  ],
  [
    "a bundler's constant, against fewer than three files",
    {
      'a.js': 'var r="modulepreload",e=function(e){return`/b/`+e}',
      'index.html': '<img src="/c/a.png"><img src="/c/b.png">',
      'a.png': '',
      'b.png': '',
    },
    '/b/',
  ],
  [
    "what four files say, against a bundler's constant",
    {
      'a.js': 'var r="modulepreload",e=function(e){return`/b/`+e}',
      'index.html': '<img src="/c/a.png"><img src="/c/b.png"><img src="/c/c.png"><img src="/c/d.png">',
      'a.png': '',
      'b.png': '',
      'c.png': '',
      'd.png': '',
    },
    '/c/',
  ],
  [
    'what a page loads its scripts from, whatever more is written by hand',
    {
      'index.html': '<script type="module" src="/b/a.js"></script><img src="/c.png"><img src="/d.png">',
      'a.js': 'jsx("img",{src:"/e.png"})',
      'c.png': '',
      'd.png': '',
      'e.png': '',
    },
    '/b/',
  ],
  ['encoded names', { 'index.html': '<img src="/b/h%C3%A4fen.png">', 'häfen.png': '' }, '/b/'],
  ['no link to a page', { 'index.html': '<a href="/b/about.html">', 'about.html': '' }, null],
])('the base is %s', (_, files, expected) => {
  expect(observed(files)).toBe(expected)
})
