import { describe, expect, test } from 'vitest'
import { followAbsence } from '../../endpoints/flow/follow.ts'
import { builtTree } from '../../syntax/tree.ts'
import { WordList } from '../words.ts'
import { absentValues, absentWords } from './absent-values.ts'
import { Literals } from './literal.ts'

/** What takes each value that may be the missing address of a request. */
function taken(code: string): string[] {
  return absentValues(code, new Literals(code), new WordList(absentWords).in(code)).flatMap(
    ({ offset, flow }) => {
      if (flow !== null) return [flow]
      const tree = builtTree(code)
      if (!tree) throw new Error('not a script')
      const { sinks, harmless } = followAbsence(code, tree, offset)
      return harmless.size > 0 ? [] : [...sinks]
    },
  )
}

describe('a request begins with what is not there', () => {
  test.each<[string, string, string[]]>([
    ['in its text', 'fetch(`undefined/boats`)', ['fetch']],
    ['in a text that is kept', 'const e="undefined/boats";fetch(e)', ['fetch']],
    ['as a whole', 'fetch(void 0).then(f)', ['fetch']],
    ['as the base of a URL', 'fetch(new URL("/boats",void 0))', ['URL']],
    ['as a member of an object', 'fetch({api:{url:void 0}}.api.url+"/boats")', ['fetch']],
    ['as a member of an object that is kept', 'const c={url:void 0};fetch(c.url+"/boats")', ['fetch']],
    ['in an environment that is taken apart', 'var{VITE_API_URL:e}={};fetch(e+"/boats")', ['fetch']],
    [
      'in an environment that is taken apart, with others',
      'var{VITE_API_URL:e}={MODE:"x"};fetch(e+"/boats")',
      ['fetch'],
    ],
    ['as a member of an environment', 'fetch({MODE:"x"}.VITE_API_URL+"/boats")', ['fetch']],
    ['given to a helper', 'function u(e,t){return e.replace(/x/,"")+t}fetch(u(void 0,"/boats"))', ['fetch']],
    [
      'given to a class',
      'new class{constructor(e){this.b=e}get(e){return fetch(this.b+e)}}(void 0).get("/x")',
      ['fetch'],
    ],
    ['in a field', 'class A{base=void 0;get(e){return fetch(`${this.base}${e}`)}}', ['fetch']],
    ['as the default of a parameter', 'function g(e,t=void 0){return fetch(t+e)}g("/boats")', ['fetch']],
    ['in the source of an element', 'var i=new Image;i.src="undefined/logo.png"', ['element']],
    ['in markup', 'x.innerHTML=`<img src="undefined/logo.png">`', ['element']],
    ['for a socket', 'new WebSocket("undefined/live")', ['WebSocket']],
  ])('%s', (_, code, expected) => {
    expect(taken(code)).toEqual(expected)
  })
})

describe('nothing that begins a request is missing', () => {
  test.each<[string, string]>([
    ['with another in its place', 'const c={url:void 0};fetch((c.url??"https://x.test")+"/boats")'],
    ['where the code asks for it', 'const c={url:void 0};if(c.url)fetch(c.url+"/boats")'],
    ['where its type is asked for', 'const c={url:void 0};"string"==typeof c.url&&fetch(c.url+"/boats")'],
    ['at the end of a text', 'const c={url:void 0};fetch("/boats/"+c.url)'],
    ['as the base of a whole address', 'new URL("https://x.test",void 0)'],
    ['as the base of a directory', 'try{h=new URL(".",void 0).href}catch(e){}'],
    [
      'as a default that every call replaces',
      'function g(e,t=void 0){return fetch(t+e)}g("/boats","https://x.test")',
    ],
    ['with the member there', 'var{VITE_API_URL:e}={VITE_API_URL:"https://x.test"};fetch(e+"/boats")'],
    ['with a default beside it', 'var{VITE_API_URL:e="https://x.test"}={};fetch(e+"/boats")'],
    ['in an option of a client', 'n.create({baseURL:void 0}).get("/boats")'],
    ['in a comparison', 'if(e==="undefined/x")f()'],
    ['in a message', 'console.warn("undefined/x is no address")'],
  ])('%s', (_, code) => {
    expect(taken(code)).toEqual([])
  })
})
