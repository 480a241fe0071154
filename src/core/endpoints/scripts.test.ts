import { expect, test } from 'vitest'
import { noSearch } from '../model/search.ts'
import { readFile } from '../output/read-file.ts'
import { type Importers, importersIn } from './importers.ts'
import type { KeptAnswer, KeptAnswers } from './kept-answers.ts'
import { Scripts } from './scripts.ts'

const url = 'http://localhost:8787'
const filler = (size: number): string => `/*${'x'.repeat(size)}*/`

/** Follows the URL in a folder of scripts, and counts how often each file is read. */
async function followed(
  files: Readonly<Record<string, string>>,
  file: string,
  importers?: Importers,
): Promise<{ sinks: string[] | null; reads: number }> {
  let reads = 0
  const read = async (path: string): Promise<Uint8Array | null> => {
    reads++
    const text = files[path]
    return text === undefined ? null : new TextEncoder().encode(text)
  }
  const outcome = await new Scripts(read, Object.keys(files), importers).follow(
    file,
    (files[file] ?? '').indexOf(url),
  )
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

test('only scripts that import it are read for what a script exports', async () => {
  const files = {
    'a/c.js': `export const u="${url}"`,
    'b/d.js': 'import{u}from"../a/c.js";fetch(u)',
    'b/c.js': 'export const u=1',
    'b/e.js': 'import{u}from"./c.js";fetch(u)',
    ...Object.fromEntries(Array.from({ length: 20 }, (_, i) => [`s${i}.js`, `import"./s${i + 1}.js"`])),
  }
  const facts = Object.entries(files).map(([path, text]) =>
    readFile(path, new TextEncoder().encode(text), noSearch),
  )
  expect(importersIn(facts)('a/c.js')).toEqual(['b/d.js'])
  const { sinks, reads } = await followed(files, 'a/c.js', importersIn(facts))
  expect({ sinks, reads }).toEqual({ sinks: ['fetch'], reads: 2 })
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

/** What was followed before, by contents: each file's text is its own name. */
class Remembered implements KeptAnswers {
  readonly answers = new Map<string, KeptAnswer>()
  files: Readonly<Record<string, string>> = {}
  get all(): string {
    return JSON.stringify(this.files)
  }
  keyOf(path: string): string | null {
    return this.files[path] ?? null
  }
  get(question: string): KeptAnswer | undefined {
    return this.answers.get(question)
  }
  set(question: string, answer: KeptAnswer): void {
    this.answers.set(question, answer)
  }
  keep(): void {}
}

/** Follows the URL with what is remembered, and tells which files were read for it. */
async function again(memory: Remembered, files: Readonly<Record<string, string>>, file = 'c.js') {
  memory.files = files
  const reads: string[] = []
  const read = async (path: string): Promise<Uint8Array | null> => {
    reads.push(path)
    return new TextEncoder().encode(files[path])
  }
  const scripts = new Scripts(read, Object.keys(files), undefined, memory)
  const outcome = await scripts.follow(file, (files[file] ?? '').indexOf(url))
  return { sinks: [...(outcome?.sinks ?? [])], reads, unfollowed: [...scripts.unfollowed] }
}

test('what was followed is known again while all contents are the same, and is asked anew where one is not', async () => {
  const memory = new Remembered()
  const files = { 'c.js': `export const u="${url}"`, 'd.js': 'import{u}from"./c.js";log(u)', 'e.js': 'x()' }
  expect(await again(memory, files)).toMatchObject({ sinks: [], reads: ['c.js', 'd.js', 'e.js'] })
  expect(await again(memory, files)).toMatchObject({ sinks: [], reads: [] })
  // An importer that now requests it, and one that has just come.
  const requesting = { ...files, 'd.js': 'import{u}from"./c.js";fetch(u)' }
  expect((await again(memory, requesting)).sinks).toEqual(['fetch'])
  expect((await again(memory, { ...files, 'f.js': 'import{u}from"./c.js";fetch(u)' })).sinks).toEqual([
    'fetch',
  ])
  // The file itself, with the text at the same place.
  expect((await again(memory, { ...files, 'c.js': `export const u="${url}";fetch(u)` })).sinks).toEqual([
    'fetch',
  ])
  expect((await again(memory, files)).sinks).toEqual([])
})

test('a script that holds more than is followed says so again', async () => {
  const memory = new Remembered()
  const files = { 'c.js': `${filler(4_100_000)}fetch("${url}")` }
  const first = await again(memory, files)
  expect(first.unfollowed).toEqual(['c.js'])
  expect(await again(memory, files)).toEqual({ ...first, reads: [] })
})

test('when a name is looked up is remembered too, and asks for no script again', async () => {
  const code = 'let here;later(()=>process.cwd());Buffer.from(here)'
  let reads = 0
  const read = async (): Promise<Uint8Array> => {
    reads++
    return new TextEncoder().encode(code)
  }
  const answers = new Remembered()
  answers.files = { 'a.js': code }
  const used = async (): Promise<(string | null)[]> => {
    const scripts = new Scripts(read, ['a.js'], undefined, answers)
    const places = ['process', 'Buffer', 'later', 'here'].map((name) => code.indexOf(name))
    return Promise.all(places.map((at) => scripts.useOf('a.js', at)))
  }
  const first = await used()
  expect(first).toEqual(['later', 'at once', 'at once', null])
  reads = 0
  expect(await used()).toEqual(first)
  expect(reads).toBe(0)
})
