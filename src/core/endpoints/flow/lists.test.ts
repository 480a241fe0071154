import { describe, expect, test } from 'vitest'
import { builtTree } from '../../syntax/tree.ts'
import { Excerpt } from './excerpt.ts'
import { followText } from './follow.ts'
import type { Outcome } from './outcome.ts'

const file = '/images/holm.svg'

/** What becomes of the file's name, by a tree of the whole script, and of the parts that matter: it must be the same. */
function followed(code: string): Outcome {
  const at = code.indexOf(file)
  const tree = builtTree(code)
  if (!tree) throw new Error('not a script')
  const whole = followText(code, tree, at)
  const parts = new Excerpt(code, { script: 0, braces: 3 }).ask(at, (part) => followText(code, part, at))
  expect({ sinks: parts?.sinks, before: parts?.before }).toEqual({ sinks: whole.sinks, before: whole.before })
  return whole
}

const list = `["/images/a.svg","${file}"]`
const each = 'function each(l,f){for(let i=0;i<l.length;i++)f(l[i],i)}'

describe('a name in a list is shown', () => {
  test.each<[string, string]>([
    ['by a function that is given beside the list', `${each}each(${list},e=>{new Image().src=e})`],
    [
      'by a function that is given what to do with a choice',
      `function g(l,f){for(const p of l){i.src=p;i.onclick=()=>f(p)}}g(${list},e=>{log(e)})`,
    ],
    ['by one whose call is not followed', `import{r as R}from"./v.js";R(${list},e=>h("img",{src:e}))`],
    [
      'by the drawing of a framework',
      `function h(t,p){return{t,p}}R(${list},e=>h("img",{key:e,src:e},null,8,Q))`,
    ],
    ['at its place in the page', `each(n,1,()=>${list},g,(n,e)=>{var i=t();f(()=>set(i,"src",Q(e)))})`],
    ['with a key of its own', `each(n,3,()=>${list},e=>e,(n,e,i)=>{var r=t();set(r,"src",e)})`],
    [
      'beside a member of one object',
      `W(For,{each:${list},children:e=>(()=>{var i=t();return set(i,"src",e),i})()})`,
    ],
    ['beside a getter of one object', `W(For,{get each(){return ${list}},children:e=>set(i,"src",e)})`],
    [
      'from a state',
      `function A(){let[e]=(0,f.useState)(${list});return e.map(e=>(0,p.jsx)("img",{src:e}))}`,
    ],
    [
      'from a state that is set',
      `function A(){let[e,s]=(0,f.useState)([]);s(${list});return e.map(e=>jsx("img",{src:e}))}`,
    ],
    ['from the value of a state', `let t=ref(${list});R(t.value,e=>h("img",{src:e}))`],
    ['from a state that is called', `let[t]=createSignal(${list});t().map(e=>h("img",{src:e}))`],
    [
      'of a component',
      `var c={data(){return{photos:${list}}}};function r(e,t,n){return R(n.photos,e=>h("img",{src:e}))}`,
    ],
    [
      'that a component computes',
      `var c={computed:{photos(){return ${list}}}};function r(e){return R(e.photos,e=>h("img",{src:e}))}`,
    ],
    ['at a place that the page chooses', `let t=${list};h("img",{src:t[n.value]})`],
    [
      'at any place',
      `let t=${list},p=()=>t[Math.floor(Math.random()*t.length)];s.backgroundImage="url("+p()+")"`,
    ],
    ['computed from its place', `let t=${list},c=computed(()=>t[n.value]);h("img",{src:c.value})`],
    ['by its key', `const o={holm:"${file}"};new Image().src=o[location.hash.slice(1)]`],
    ['by its key in a map', `const o=new Map([["holm","${file}"]]);new Image().src=o.get(k)`],
    ['with all entries', `for(const[k,v]of Object.entries({holm:"${file}"})){i.alt=k;i.src=v}`],
    ['with all values', `Object.values({holm:"${file}"}).forEach(e=>{i.src=e})`],
    ['by a function with a name', `function s(e){new Image().src=e}${list}.forEach(s)`],
    ['sorted, from its second on', `${list}.sort().slice(1).map(e=>h("img",{src:e}))`],
    ['one by one', `${list}.reduce((a,e)=>a+'<img src="'+e+'">',"")`],
    ['under its name', `let t=[{image:"${file}"}];R(t,e=>h("img",{src:e.image}))`],
    ['under its name, at a place', `let t=[{image:"${file}"}];h("img",{src:t[n].image})`],
    [
      'by a component of the script',
      `function P(n,p){set(i,"src",p.picture)}each(n,1,()=>${list},g,(n,e)=>{P(n,{get picture(){return Q(e)}})})`,
    ],
  ])('%s', (_, code) => {
    expect([...followed(code).sinks]).toEqual(['element'])
  })

  test('behind a base, wherever the list goes', () => {
    for (const code of [
      `let b="/crossings";R(${list},e=>h("img",{src:b+e}))`,
      `let b="/crossings";each(n,1,()=>${list},g,(n,e)=>{set(i,"src",b+Q(e))})`,
      `function g(e){return r(e)?e.value:e}let b="/crossings/".replace(/\\/$/,"");R(${list},e=>h("img",{src:g(b)+e}))`,
      `let b="/crossings";${list}.reduce((t,n)=>t+'<img src="'+b+n+'" alt="">',"")`,
      `let b="/crossings";${list}.map(n=>\`<img src="\${b}\${n}" alt="">\`)`,
      `import{u as g}from"./v.js";let b="/crossings";R(${list},e=>h("img",{src:g(b)+e}))`,
      `let b="/crossings",[t]=useState(${list});t.map(e=>h("img",{src:b+e}))`,
    ])
      expect(followed(code)).toMatchObject({ before: ['/crossings'], sinks: new Set(['element']) })
  })
})

describe('a name in a list is not shown', () => {
  test.each<[string, string]>([
    ['when something else is', `R(${list},e=>h("img",{alt:e}));new Image().src="/other.svg"`],
    ['when it is compared', `new Image().src=x;${list}.includes(x)`],
    ['when a request is answered', `load("${file}",e=>{new Image().src=e})`],
    ['when it is only counted', `let t=${list};h("p",{title:t.length})`],
    [
      'when another function takes another list',
      `${each}each(${list},e=>{log(e)});each(o,e=>{new Image().src=e})`,
    ],
  ])('%s', (_, code) => {
    expect([...followed(code).sinks]).toEqual([])
  })

  test('by what is not followed, which is told with the name that it got', () => {
    expect([...followed(`R(${list},e=>h(Boat,{picture:e}))`).lostAs]).toEqual(['picture'])
  })
})
