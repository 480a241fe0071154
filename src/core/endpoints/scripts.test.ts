import { expect, test } from 'vitest'
import { Scripts } from './scripts.ts'

const url = 'http://localhost:8787'
const filler = (size: number): string => `/*${'x'.repeat(size)}*/`

/** Follows the URL in a folder of scripts, and counts how often each file is read. */
async function followed(
  files: Readonly<Record<string, string>>,
  file: string,
): Promise<{ sinks: string[] | null; reads: number }> {
  let reads = 0
  const read = async (path: string): Promise<Uint8Array | null> => {
    reads++
    const text = files[path]
    return text === undefined ? null : new TextEncoder().encode(text)
  }
  const outcome = await new Scripts(read, Object.keys(files)).follow(file, (files[file] ?? '').indexOf(url))
  return { sinks: outcome && [...outcome.sinks], reads }
}

test('a constant is followed into the script that imports it, wherever both are', async () => {
  const files = {
    'a/c.js': `export const u="${url}"`,
    'b/d.js': 'import{u}from"../a/c.js";fetch(u)',
    'b/e.js': 'import{u}from"../a/x.js";fetch(u)',
  }
  expect((await followed(files, 'a/c.js')).sinks).toEqual(['fetch'])
})

test('an inline script of a page is followed, at its own place', async () => {
  const files = {
    'index.html': `<!doctype html><p>x</p><script>first()</script><script>fetch("${url}")</script>`,
  }
  expect((await followed(files, 'index.html')).sinks).toEqual(['fetch'])
})

test('a file that is gone, and a script that is none, are not followed', async () => {
  expect((await followed({}, 'gone.js')).sinks).toBeNull()
  expect((await followed({ 'a.js': `fetch("${url}"` }, 'a.js')).sinks).toBeNull()
  expect((await followed({ 'a.js': `${filler(4_100_000)}fetch("${url}")` }, 'a.js')).sinks).toBeNull()
})

test('many importers are looked through up to a bound', async () => {
  const importers = Array.from({ length: 90 }, (_, index) => [
    `i${index}.js`,
    'import{u}from"./c.js";show(u)',
  ])
  const { sinks } = await followed(
    {
      'c.js': `export const u="${url}"`,
      ...Object.fromEntries(importers),
      'z.js': 'import{u}from"./c.js";fetch(u)',
    },
    'c.js',
  )
  expect(sinks).toEqual([])
})

test('code beyond a bound for the whole run is not parsed', async () => {
  const large = Array.from({ length: 25 }, (_, index) => [
    `i${index}.js`,
    `import{u}from"./c.js";${filler(3_000_000)}`,
  ])
  const { sinks, reads } = await followed(
    {
      'c.js': `export const u="${url}"`,
      ...Object.fromEntries(large),
      'z.js': 'import{u}from"./c.js";fetch(u)',
    },
    'c.js',
  )
  expect(sinks).toEqual([])
  expect(reads).toBe(27)
})

test.each([
  ['import{a as b,u as t}from"./c.js";fetch(t)', ['fetch']],
  ['import*as t from"./c.js";fetch(t.u)', ['fetch']],
  ['import{\n  u\n} from "./c.js"\nfetch(u)', ['fetch']],
  ['import{ux as t}from"./c.js";fetch(t)', []],
  ['import t from"./c.js";fetch(t)', []],
])('whether %s imports it is told by its words', async (code, sinks) => {
  const files = { 'c.js': `export const u="${url}"`, 'd.js': code }
  expect((await followed(files, 'c.js')).sinks).toEqual(sinks)
})

test('a default export is one whatever it is called', async () => {
  const files = { 'c.js': `export default"${url}"`, 'd.js': 'import t from"./c.js";fetch(t)' }
  expect((await followed(files, 'c.js')).sinks).toEqual(['fetch'])
})
