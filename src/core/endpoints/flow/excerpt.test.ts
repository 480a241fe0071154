import fc from 'fast-check'
import { expect, test } from 'vitest'
import { builtTree } from '../../syntax/tree.ts'
import { Excerpt } from './excerpt.ts'
import { followText } from './follow.ts'

const url = 'http://localhost:8787'
const all = { script: 0, braces: 3 }

/** Ways to hand a value on, by one-letter names that mean other things elsewhere, as minified code has them. */
const pieces = [
  `const e="${url}";function t(n){return fetch(n+e)}`,
  `function e(t){return t("/v1")}e(n=>fetch("${url}"+n))`,
  `class e{constructor(t){this.t=t}n(){return fetch(this.t+"/v1")}}new e("${url}")`,
  `const t=()=>{const e="${url}";return e};function n(){return fetch(t())}`,
  `var e={n:"${url}"},t=function(){return e.n};(function(){if(t())fetch(t())})()`,
  `async function e(){for await(const t of n()){await fetch("${url}"+t)}}`,
  `function*e(){yield fetch("${url}")}class t extends n{constructor(){super("${url}");this.e=1}}`,
  `function e(){let t;{t="${url}"}return{n(){return new WebSocket(t)}}}`,
  `switch(e){case 1:{const t="${url}";n(t)}}function n(t){if(t===e){return}new EventSource(t)}`,
  `var e=/[)}{]/.test(t)?"${url}":\`a\${(function(){return"}"})()}\`;function n(){fetch(e)}`,
  `const t={api:{base:"${url}",of(n){return fetch(this.base+n)}},other:1};fetch(t.api.base+"/v1")`,
  `const t=({base:e="${url}",path:n})=>fetch(e+n);t({path:"/v1"})`,
  `let t,n;({base:t="${url}",more:{path:n}}=e);fetch(t+n);[{deep:t}]=[{deep:"${url}"}]`,
  `async function t(){const n={url:"${url}",more:await e({wait:1})};return fetch(n.url,{...n,x(){return 1}})}`,
  `const t="${url}";e(t=>{n(t)});function n(r){return fetch(r+t)}`,
  `function e(){if(n){var t="${url}";fetch(t)}}`,
  `var e="${url}";[1].map(e=>{return e});if(n){fetch(e)}`,
  `class e extends t(n){m(){return fetch(n)}}var n="${url}"`,
  `function e(t){try{n()}catch(t){fetch(t)}for(const n of t){fetch(n)}}e("${url}")`,
  `for(const t of[{url:"${url}"},{url:"/v1"}])n(t);function n({url:e}){return fetch(e)}`,
]
const wrappers: readonly ((code: string) => string)[] = [
  (code) => code,
  (code) => `(function(e,t){${code}})(1,2);`,
  (code) => `const w=()=>{${code}};`,
  (code) => `({m(n){${code}}});`,
  (code) => `const{o=(()=>{${code}})()}={long:{er:1}};`,
  (code) => `{${code}}`,
  (code) => `class W{static m(e){${code}}}`,
]

test('the answer about a part of a script is the one about the whole of it', () => {
  const piece = fc.tuple(fc.constantFrom(...pieces), fc.array(fc.constantFrom(...wrappers), { maxLength: 3 }))
  fc.assert(
    fc.property(fc.array(piece, { minLength: 1, maxLength: 4 }), (parts) => {
      const code = parts
        .map(([inner, around], index) =>
          around.reduce((made, wrap) => wrap(made), around.length > 0 || index === 0 ? inner : `{${inner}}`),
        )
        .join(';\n')
      const tree = builtTree(code)
      if (!tree) return
      const excerpt = new Excerpt(code, all)
      for (let at = code.indexOf(url); at >= 0; at = code.indexOf(url, at + 1)) {
        const whole = followText(code, tree, at)
        const part = excerpt.ask(at, (each) => followText(code, each, at))
        expect(part && [...part.sinks].sort()).toEqual([...whole.sinks].sort())
        expect(part && [...part.harmless].sort()).toEqual([...whole.harmless].sort())
        expect(part?.text).toBe(whole.text)
      }
    }),
    { numRuns: 300 },
  )
})

test('what no question comes to is not parsed', () => {
  const filler = `${'function a(b){return b.map(c=>{return c.d+1})}'.repeat(1_000)}e({${'one:[{two:3}],'.repeat(3_000)}});`
  const code = `${filler};function f(){fetch("${url}")}${filler}`
  const excerpt = new Excerpt(code)
  const outcome = excerpt.ask(code.indexOf(url), (tree) => followText(code, tree, code.indexOf(url)))
  expect([...(outcome?.sinks ?? [])]).toEqual(['fetch'])
  expect(excerpt.parsed).toBeLessThan(code.length * 0.7)
})

test('where a name means something else is not parsed for it', () => {
  const others = 'function a(e){return e.map((b,c)=>{return e.d+b+c+1+2+3})}'.repeat(2_000)
  const code = `(function(e,t){${others};function f(n){return fetch(e+n)}})("${url}")`
  const excerpt = new Excerpt(code)
  const outcome = excerpt.ask(code.indexOf(url), (tree) => followText(code, tree, code.indexOf(url)))
  expect([...(outcome?.sinks ?? [])]).toEqual(['fetch'])
  expect(excerpt.parsed).toBeLessThan(code.length * 0.6)
})

test('brackets that do not fit lead to the whole of the script, and a broken one to no answer', () => {
  const big = `${'x'.repeat(10)};`.repeat(3_000)
  const broken = `${big}function f(){fetch("${url}"}`
  expect(new Excerpt(broken).ask(0, () => 1)).toBeNull()
  const late = `${big}function f(){fetch("${url}");var = 1}`
  expect(new Excerpt(late).ask(late.indexOf(url), () => 1)).toBeNull()
  expect(new Excerpt(late).ask(null, () => 1)).toBe(1)
})

test('a large script is answered by its parts, up to a bound of what is parsed', () => {
  const body = `function f(a){${'a(1);'.repeat(20)}}`
  const large = `${body.repeat(40_000)}function g(){fetch("${url}")}`
  const at = large.indexOf(url)
  expect(large.length).toBeGreaterThan(4_500_000)
  const excerpt = new Excerpt(large)
  expect(excerpt.ask(at, (tree) => [...followText(large, tree, at).sinks])).toEqual(['fetch'])
  expect(excerpt.isBeyond).toBe(false)
  const flat = new Excerpt('a(1);'.repeat(900_000))
  expect(flat.ask(0, () => 1)).toBeNull()
  expect(flat.isBeyond).toBe(true)
})
