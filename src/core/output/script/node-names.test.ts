import { expect, test } from 'vitest'
import { Literals } from './literal.ts'
import { nodeNamesIn } from './node-names.ts'

const named = (code: string): string[] =>
  nodeNamesIn(code, new Literals(code)).map(({ name, variable, made }) =>
    [name, variable, made && 'made'].filter(Boolean).join(' '),
  )

test.each<[string, string, string[]]>([
  ['a variable', 'fetch(process.env.API+"/v1")', ['process API']],
  ['a variable that may be missing', 'f(process?.env?.API)', ['process API']],
  ['another member', 'process.nextTick(f)', ['process']],
  ['the global object', 'global.x=1', ['global']],
  ['bytes', 'Buffer.from("a")', ['Buffer']],
  ['a module', 'var a=require("./a.json")', ['require']],
  ['where a script is', 'f(__dirname+"/a",__filename)', ['__dirname', '__filename']],
  [
    'what a compiler of modules writes',
    'Object.defineProperty(exports,"__esModule",{value:!0});exports.a=1',
    ['exports', 'exports'],
  ],
  ['asked for before', 'typeof process<"u"&&process.env.DEBUG', []],
  ['asked for by its type alone', 'typeof global', []],
  ['a member of another object', 'a.process.env.API;a.global.x;t.Buffer.from(1)', []],
  ['in a text', 'f("process.env.API", `global.x`)', []],
  ['a longer name', 'processed.env.A;globals.x;$require("a");__dirname2', []],
  ['a loader of lists', 'require(["a"],f)', []],
  ['made for all', 'window.process={env:{}};globalThis.global??=globalThis', ['process made', 'global made']],
  ['declared', 'var Buffer=x();function require(a){}', ['Buffer made', 'require made']],
  ['compared', 'window.process===1', []],
])('%s', (_, code, expected) => {
  expect(named(code)).toEqual(expected)
})
