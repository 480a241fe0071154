import { expect, test } from 'vitest'
import { builtTree } from '../syntax/tree.ts'
import { freeUseAt } from './free-use.ts'

const used = (code: string): string | null => {
  const tree = builtTree(code)
  if (!tree) throw new Error('not a script')
  return freeUseAt(tree, code.indexOf('process.') < 0 ? code.indexOf('process') : code.indexOf('process.'))
}

test.each<[string, string, string | null]>([
  ['as soon as it runs', 'f(process.env.A)', 'at once'],
  ['in a function that is called at once', '(()=>{f(process.env.A)})()', 'at once'],
  ['in one that is called by another way', '!function(){f(process.env.A)}.call(this)', 'at once'],
  ['in a field that every class has', 'class A{static a=process.env.A}', 'at once'],
  ['in a function', 'function g(){f(process.env.A)}', 'later'],
  ['in a module of a bundler', 'x={12:(e,t,n)=>{f(process.env.A)}}', 'later'],
  ['that a function is given', '(function(process){f(process.env.A)})(x)', null],
  ['that is declared', 'const process={};f(process.env.A)', null],
  ['asked for by its type', 'typeof process<"u"?process.env.A:0', null],
  ['asked for in a branch', 'if(typeof process==="object"){f(process.env.A)}', null],
  ['asked for as a member', '"process" in self&&f(process.env.A)', null],
  ['behind the window of a browser', 'window.process&&f(process.env.A)', null],
  ['that may fail', 'try{f(process.env.A)}catch{}', null],
  ['in what is done about a failure', 'try{g()}catch{f(process.env.A)}', null],
  ['behind a flag for Node', 'var n=isNode(),t=n?function(){return process.nextTick}():0', null],
  ['on the other side of a flag', 'n||f(process.env.A)', null],
  ['in the test of a branch itself', 'if(process.env.NODE_ENV!=="production"){f()}', 'at once'],
  ['in one case', 'switch(n){case 1:f(process.env.A)}', null],
  ['that is written to', 'process={env:{}}', null],
  ['in a comment', '/* process.env.A */f()', null],
])('a name %s', (_, code, expected) => {
  expect(used(code)).toBe(expected)
})
