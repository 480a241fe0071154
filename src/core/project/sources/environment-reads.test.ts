import { describe, expect, test } from 'vitest'
import { frameworks } from '../../frameworks/index.ts'
import { readEnvironmentReads } from './environment-reads.ts'
import { Sources } from './sources.ts'

function readsIn(files: Readonly<Record<string, string>>, framework = 'vite') {
  const rules = frameworks.find(({ name }) => name === framework)
  if (!rules) throw new Error(`no framework ${framework}`)
  const { reads, computed, traces } = readEnvironmentReads(new Sources(new Map(Object.entries(files))), rules)
  return {
    reads: reads.map(({ name, place: { line }, guarded }) => `${name}:${line}${guarded ? ' guarded' : ''}`),
    computed: computed.map(({ line }) => line),
    kinds: [...new Set(traces.map(({ kind }) => kind))],
  }
}

describe('reads in a script', () => {
  test.each<[string, string, string[]]>([
    ['a member', 'f(import.meta.env.VITE_A)', ['VITE_A:1']],
    ['a member by its text', 'f(import.meta.env["VITE_A"])', ['VITE_A:1']],
    ['an optional member', 'f(import.meta.env?.VITE_A)', ['VITE_A:1']],
    [
      'two in a template',
      'f(`${import.meta.env.VITE_A}/${import.meta.env.VITE_B}`)',
      ['VITE_A:1', 'VITE_B:1'],
    ],
    ['a default', 'f(import.meta.env.VITE_A ?? "y")', ['VITE_A:1 guarded']],
    ['an older default', 'f(import.meta.env.VITE_A || "y")', ['VITE_A:1 guarded']],
    ['a test', 'if (import.meta.env.VITE_A) f()', ['VITE_A:1 guarded']],
    ['a test of its type', 'f(typeof import.meta.env.VITE_A)', ['VITE_A:1 guarded']],
    ['a comparison', 'f(import.meta.env.VITE_A === "x")', ['VITE_A:1 guarded']],
    ['destructured', 'const { VITE_A, VITE_B = "y" } = import.meta.env', ['VITE_A:1', 'VITE_B:1 guarded']],
    ['through a name for all', 'const env = import.meta.env\nf(env.VITE_A)', ['VITE_A:2']],
    ['destructured from a name for all', 'const e = import.meta.env\nconst { VITE_A } = e', ['VITE_A:2']],
    ['what every build sets', 'f(import.meta.env.MODE, import.meta.env.BASE_URL)', []],
    ['typed', 'const a = import.meta.env.VITE_A as string\nfetch(a!)', ['VITE_A:1']],
    ['a test that throws', 'if (!import.meta.env.VITE_A) throw new Error("no VITE_A")', ['VITE_A:1']],
    [
      'a test of its constant that throws',
      'const a = import.meta.env.VITE_A\nif (!a) {\n  throw new Error("no VITE_A")\n}',
      ['VITE_A:1'],
    ],
    ['a test that returns', 'function f() { if (!import.meta.env.VITE_A) return }', ['VITE_A:1 guarded']],
    [
      'tested before',
      'f(import.meta.env.VITE_A ? g(import.meta.env.VITE_A) : 0)',
      ['VITE_A:1 guarded', 'VITE_A:1 guarded'],
    ],
    [
      'tested before, with more',
      'if (import.meta.env.VITE_A && x) { g(`${import.meta.env.VITE_A}/b`) }',
      ['VITE_A:1 guarded', 'VITE_A:1 guarded'],
    ],
    [
      'on the other side of its test',
      'f(import.meta.env.VITE_A ? 0 : g(import.meta.env.VITE_A))',
      ['VITE_A:1 guarded', 'VITE_A:1'],
    ],
    [
      'where another is tested',
      'f(import.meta.env.VITE_B ? g(import.meta.env.VITE_A) : 0)',
      ['VITE_B:1 guarded', 'VITE_A:1'],
    ],
    ['only in a comment', '// import.meta.env.VITE_A', []],
    ['only in a text', 'f("import.meta.env.VITE_A")', []],
  ])('%s', (_, code, expected) => {
    expect(readsIn({ 'src/a.ts': code }).reads).toEqual(expected)
  })

  test.each<[string, string]>([
    ['a computed name', 'f(import.meta.env[name])'],
    ['all of them, passed on', 'f(import.meta.env)'],
    ['all of them, as a setting', 'createEnv({ client: {}, runtimeEnv: import.meta.env })'],
    ['all of them, spread', 'f({ ...import.meta.env })'],
    ['all of them under a name, passed on', 'const env = import.meta.env; f(env)'],
  ])('%s is said to be unknown', (_, code) => {
    const { reads, computed } = readsIn({ 'src/a.ts': code })
    expect(reads).toEqual([])
    expect(computed).toEqual([1])
  })

  test('a source that can not be parsed reads nothing, and the others still do', () => {
    expect(
      readsIn({ 'src/a.ts': 'f(import.meta.env.VITE_A', 'src/b.ts': 'f(import.meta.env.VITE_B)' }).reads,
    ).toEqual(['VITE_B:1'])
  })
})

describe('reads in components', () => {
  test.each<[string, string, string, string, string[]]>([
    ['Vue', 'vite', 'A.vue', '<script setup>\nconst a = import.meta.env.VITE_A\n</script>', ['VITE_A:2']],
    ['Svelte markup', 'vite', 'A.svelte', '<p>\n{import.meta.env.VITE_A}</p>', ['VITE_A:2']],
    [
      'Svelte markup with a default',
      'vite',
      'A.svelte',
      '<p>{import.meta.env.VITE_A ?? "y"}</p>',
      ['VITE_A:1 guarded'],
    ],
    [
      'Astro',
      'astro',
      'a.astro',
      '---\nconst a = import.meta.env.PUBLIC_A\n---\n<p>{import.meta.env.PUBLIC_B}</p>',
      ['PUBLIC_A:2', 'PUBLIC_B:4'],
    ],
    ['JSX', 'vite', 'A.tsx', 'export const A = () => <p>{import.meta.env.VITE_A}</p>', ['VITE_A:1']],
  ])('%s', (_, framework, file, text, expected) => {
    expect(readsIn({ [`src/${file}`]: text }, framework).reads).toEqual(expected)
  })
})

describe('modules of a framework that hold variables', () => {
  test.each<[string, string, string, string[], string[]]>([
    [
      'static and public',
      'sveltekit',
      'import { PUBLIC_A } from "$env/static/public"\nf(PUBLIC_A)',
      ['PUBLIC_A:2'],
      [],
    ],
    [
      'under another name',
      'sveltekit',
      'import { PUBLIC_A as a } from "$env/static/public"\nf(a)',
      ['PUBLIC_A:2'],
      [],
    ],
    [
      'dynamic',
      'sveltekit',
      'import { env } from "$env/dynamic/public"\nf(env.PUBLIC_A)',
      ['PUBLIC_A:2'],
      ['object'],
    ],
    [
      'private: nothing is looked for in the build',
      'sveltekit',
      'import { KEY } from "$env/static/private"\nf(KEY)',
      ['KEY:2'],
      [],
    ],
    ['of another name', 'sveltekit', 'import { PUBLIC_A } from "./public"\nf(PUBLIC_A)', [], []],
    [
      'client',
      'astro',
      'import { API } from "astro:env/client"\nf({ api: API, size: 1 })',
      ['API:2'],
      ['property'],
    ],
  ])('%s', (_, framework, code, expected, kinds) => {
    const found = readsIn({ 'src/a.js': code }, framework)
    expect(found.reads).toEqual(expected)
    expect(found.kinds).toEqual(kinds)
  })
})
