import { describe, expect, test } from 'vitest'
import type { Search, Trace } from '../../model/search.ts'
import { readFile } from '../read-file.ts'

function seen(code: string, search: Partial<Search>): string[] {
  const facts = readFile('a.js', new TextEncoder().encode(code), {
    values: [],
    traces: [],
    secrets: [],
    names: [],
    paths: [],
    ...search,
  })
  return facts.occurrences.map(({ name, state, offset, length }) => {
    expect(offset + length).toBeLessThanOrEqual(code.length + 1)
    return `${name} ${state}`
  })
}

const template = (before: string, after: string): Trace => ({
  name: 'API',
  read: 0,
  kind: 'template',
  before,
  after,
})
const property = (key: string, ...siblings: string[]): Trace => ({
  name: 'KEY',
  read: 1,
  kind: 'property',
  key,
  siblings,
})

test.each<[string, string, Trace, string[]]>([
  ['folded by a minifier', 'fetch(`undefined/v1`)', template('', '/v1'), ['API absent']],
  ['folded in double quotes', 'fetch("undefined/v1")', template('', '/v1'), ['API absent']],
  ['folded between texts', 'x("https://undefined/v1")', template('https://', '/v1'), ['API absent']],
  ['added to void 0', 'fetch(void 0+"/v1")', template('', '/v1'), ['API absent']],
  ['left in a hole', 'fetch(`${void 0}/v1`)', template('', '/v1'), ['API absent']],
  ['concatenated for old browsers', '"".concat(void 0,"/v1")', template('', '/v1'), ['API absent']],
  ['with its value', 'fetch(`https://api.example/v1/list`)', template('', '/v1/list'), ['API present']],
  [
    'with its value, and little to go by',
    'fetch(`https://api.example/v1`)',
    template('', '/v1'),
    ['API present'],
  ],
  ['in front of a hole', 'fetch(`/api/v1/${id}`)', template('', '/v1/'), ['API present']],
  ['in the middle of a file name', 'x("assets/v1/list-AbCd.js")', template('', '/v1/list'), []],
  ['in the name of a module', 'import("./a/v1/list")', template('', '/v1/list'), []],
  ['in a constant, of which nothing is known here', 'fetch(`${e}/v1/list`)', template('', '/v1/list'), []],
  ['added to a name for nothing', 'const u=void 0;fetch(u+"/v1")', template('', '/v1'), ['API absent']],
  [
    'added to a name for nothing, as a bundler leaves it',
    'const api = undefined                        ;\nfetch(api + "/v1")',
    template('', '/v1'),
    ['API absent'],
  ],
  ['added to a name that is given more', 'let u=void 0;u=f();fetch(u+"/v1")', template('', '/v1'), []],
  [
    'added to what a bundler left',
    'fetch(undefined                 + "/v1")',
    template('', '/v1'),
    ['API absent'],
  ],
  [
    'put behind a text',
    'x("Welcome to " + undefined                )',
    template('Welcome to ', ''),
    ['API absent'],
  ],
  ['a text of its own', 'x("Welcome to " + name)', template('Welcome to ', ''), []],
  ['another undefined', 'throw Error("x is undefined/null")', template('', '/v1'), []],
  ['too little to go by', 'x("a/")', template('', '/'), []],
])('a template %s', (_, code, trace, expected) => {
  expect(seen(code, { traces: [trace] })).toEqual(expected)
})

test.each<[string, string, Trace, string[]]>([
  ['absent beside its siblings', 'c({key:void 0,region:1})', property('key', 'region'), ['KEY absent']],
  ['absent, quoted', 'c({"key":undefined,"region":1})', property('key', 'region'), ['KEY absent']],
  ['present beside its siblings', 'c({key:`abc`,region:1})', property('key', 'region'), ['KEY present']],
  ["a library's own", 'c({key:void 0,ref:null})', property('key', 'region'), []],
  ['alone in its object', 'c({apiToken:void 0})', property('apiToken'), ['KEY absent']],
  ['not alone though the source has it so', 'c({a:1,apiToken:void 0})', property('apiToken'), []],
  ['computed later', 'c({key:f(),region:1})', property('key', 'region'), []],
  ['the end of another name', 'c({monkey:void 0,region:1})', property('key', 'region'), []],
])('a property %s', (_, code, trace, expected) => {
  expect(seen(code, { traces: [trace] })).toEqual(expected)
})

test.each([
  ['t.default.env.NAME+"x"', ['NAME absent']],
  ['process.env.NAME', ['NAME unreplaced']],
  ['import.meta.env.NAME', ['NAME unreplaced']],
  ['t.process.env.NAME', ['NAME absent']],
  ['fetch(`${{}.NAME}/v1`)', ['NAME absent']],
  ['env.NAMELESS', []],
  ['"set NAME in .env.NAME files"', ['NAME absent']],
  ['x.NAME', []],
])('a read that was left in: %s', (code, expected) => {
  expect(seen(code, { names: ['NAME'] })).toEqual(expected)
})

test.each([
  ['var r={};fetch(r.SAILINGS_API+"/v1")', ['SAILINGS_API absent']],
  ['const r={},o=1;fetch(`${r?.SAILINGS_API}/v1`)', ['SAILINGS_API absent']],
  ['var r={};r.SAILINGS_API="/api";fetch(r.SAILINGS_API)', []],
  ['var r={};Object.assign(r,{SAILINGS_API:"/api"});fetch(r.SAILINGS_API)', []],
  ['var r={a:1};fetch(r.SAILINGS_API)', []],
  ['function f(r){return r.SAILINGS_API}', []],
])('a member of an environment that was left empty: %s', (code, expected) => {
  expect(seen(code, { names: ['SAILINGS_API'] })).toEqual(expected)
})

test('values are found where they stand, and only in texts', () => {
  const values = [{ name: 'A', value: 'https://api.example', role: 'present' as const }]
  expect(seen('fetch("https://api.example/v1")', { values })).toEqual(['A present'])
  expect(seen('// https://api.example\nx(1)', { values })).toEqual([])
})

const whole: Trace = { name: 'API', read: 0, kind: 'object' }

test.each<[string, string, string[]]>([
  ['as a bundler writes it', 'c({MODE:"production",API:"https://x.test",PROD:!0})', ['API present']],
  ['without the variable', 'c({MODE:"production",PROD:!0})', ['API lacking']],
  ['with nothing in it', 'c({MODE:"production",API:void 0})', ['API lacking']],
  ['exported under its own name', 'export const env={"API":"x"}', ['API present']],
  ['exported empty', 'export const env={}', ['API lacking']],
  ["another object's", 'c({API:"x",size:2})', []],
])('the whole environment %s', (_, code, expected) => {
  expect(seen(code, { traces: [whole] })).toEqual(expected)
})

test.each<[string, string, string[]]>([
  ['left as it was', '<title>%API% ferries</title>', ['API absent']],
  ['replaced', '<title>Skerry ferries</title>', []],
])('a marker in a page %s', (_, markup, expected) => {
  const marker: Trace = { name: 'API', read: 0, kind: 'marker', marker: '%API%' }
  const facts = readFile('index.html', new TextEncoder().encode(markup), {
    values: [],
    traces: [marker],
    secrets: [],
    names: [],
    paths: [],
  })
  expect(facts.occurrences.map(({ name, state }) => `${name} ${state}`)).toEqual(expected)
})

test.each<[string, string, string[]]>([
  ['empty, as the framework leaves it', 'u({public:{api:"",size:2}})', ['KEY absent']],
  ['given', 'u({public:{api:"https://x.test",size:2}})', ['KEY present']],
])('a member of an object that a framework fills, %s', (_, code, expected) => {
  const trace: Trace = {
    name: 'KEY',
    read: 0,
    kind: 'property',
    key: 'api',
    siblings: ['size'],
    missing: [''],
  }
  expect(seen(code, { traces: [trace] })).toEqual(expected)
})

test.each([
  ['x("sk7-Zr"+"41-mar"+`ked`)', ['A private']],
  ['x("sk7-" + \'Zr41-marked\')', ['A private']],
  ['x("sk7-Zr"+y+"41-marked")', []],
  ['x("sk7-Zr","41-marked")', []],
])('a private value cut into pieces: %s', (code, expected) => {
  const values = [{ name: 'A', value: 'sk7-Zr41-marked', role: 'private' as const }]
  expect(seen(code, { values })).toEqual(expected)
})

describe('a member of an empty environment', () => {
  test.each<[string, string, string[]]>([
    ['taken out of it', 'const s={},{VITE_API:c}=s;fetch(c)', ['VITE_API absent']],
    [
      'taken out of it with others',
      'const s={},{VITE_A:a,VITE_API:c,VITE_B:b}=s;fetch(c)',
      ['VITE_API absent'],
    ],
    ['by another name', 'const s={},c=s;fetch(c.VITE_API)', ['VITE_API absent']],
    [
      'as a bundler leaves it',
      'const __env__ = {};\nconst env = __env__;\nfetch(env.VITE_API + "/s")',
      ['VITE_API absent'],
    ],
    ['by its text', 'const e={};fetch(e["VITE_API"])', ['VITE_API absent']],
    ['of an environment that has it', 'const env={"VITE_API":"x"};fetch(env.VITE_API)', []],
    ['that is set later', 'const s={};s.VITE_API=f();fetch(s.VITE_API)', []],
    ['of what is made elsewhere', 'const s=f();fetch(s.VITE_API)', []],
    ['of a polyfill', 'fetch(t.default.env.VITE_API)', ['VITE_API absent']],
  ])('%s', (_, code, expected) => {
    expect(seen(code, { names: ['VITE_API'] })).toEqual(expected)
  })
})

describe('an error for want of a variable', () => {
  const thrown: Trace = { name: 'API', read: 0, kind: 'thrown', message: 'no address' }
  test.each<[string, string, string[]]>([
    ['alone', 'a();throw new Error("no address");', ['API absent']],
    ['at the end of a function', 'function f(){g();throw Error(`no address`)}', ['API absent']],
    ['behind a test of nothing', 'if(!void 0)throw new Error("no address")', ['API absent']],
    [
      'behind a test of a name for nothing',
      'const e=void 0;if(!e)throw new Error("no address")',
      ['API absent'],
    ],
    ['behind a test of a name without a value', 'let e;if(!e)throw Error("no address")', ['API absent']],
    ['behind a test of a name that gets one', 'let e;e=f();if(!e)throw Error("no address")', []],
    ['behind a test of the value', 'if(!"https://x.test")throw new Error("no address")', []],
    ['behind a test of a name for it', 'const e="https://x.test";if(!e)throw new Error("no address")', []],
    ['behind a test of something else', 'if(!f(e))throw new Error("no address")', []],
    ['behind another', 'if(a)b();else throw new Error("no address")', []],
    [
      'in a block behind a test of nothing',
      'if (!undefined) {\n  throw new Error("no address")\n}',
      ['API absent'],
    ],
    [
      'in a block behind a test of the value',
      'if (!"https://x.test") {\n  throw new Error("no address")\n}',
      [],
    ],
    ['in a block behind a test of something else', 'if(f(e)){throw new Error("no address")}', []],
    ['as all that a function does', 'const f=()=>{throw new Error("no address")}', ['API absent']],
    ['in another block', 'try{throw new Error("no address")}catch{}', []],
    ['shown', 'p("no address")', []],
  ])('%s', (_, code, expected) => {
    expect(seen(code, { traces: [thrown] })).toEqual(expected)
  })
})
