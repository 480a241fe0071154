import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { builtTree } from '../../syntax/tree.ts'
import { Excerpt } from './excerpt.ts'
import { followImport, followText } from './follow.ts'
import type { Outcome } from './outcome.ts'

const url = 'http://localhost:8787'

/** What becomes of the URL, by a tree of the whole script, and of the parts that matter: it must be the same. */
function followed(code: string, at = code.indexOf(url)): string[] {
  const tree = builtTree(code)
  if (!tree) throw new Error('not a script')
  const whole = endsOf(followText(code, tree, at))
  const parts = new Excerpt(code, { script: 0, braces: 3 }).ask(at, (part) => followText(code, part, at))
  expect(parts && endsOf(parts).sort()).toEqual([...whole].sort())
  return whole
}

function endsOf({ sinks, harmless, exported }: Outcome): string[] {
  const names = exported.map(({ name, path }) => `exported ${[name, ...path].join('.')}`)
  return [...sinks, ...harmless, ...names]
}

describe('a URL is requested when it is', () => {
  test.each<[string, string, string]>([
    ['fetched', `fetch("${url}")`, 'fetch'],
    ['fetched from the window', `window.fetch("${url}/v1",{method:"POST"})`, 'fetch'],
    ['fetched where the page has a host', `fetch(window.location.hostname?"${url}":"/")`, 'fetch'],
    ['fetched by a page that is from no disk', `fetch("file:"!==location.protocol?"${url}":"/")`, 'fetch'],
    ['fetched by the function of the page where no other is given', `(o.fetch||fetch)("${url}")`, 'fetch'],
    ['fetched by a name for it', `const f=o.fetch??globalThis.fetch;function g(e){f(e)}g("${url}")`, 'fetch'],
    [
      'fetched by a default that is taken out of options',
      `function m(o){let{fetch:f=globalThis.fetch.bind(globalThis)}=o;return f("${url}")}`,
      'fetch',
    ],
    ['a base beside a function', `function g(e){return e}n.make(g,{baseURL:"${url}"})`, 'client'],
    [
      'given to what connects by a method named for it',
      `new B().withUrl("${url}").build().start()`,
      'client',
    ],
    [
      'fetched before its name is given another',
      `async function p(){let n="${url}";for(;n;){let r=await fetch(n);n=(await r.json()).next}}`,
      'fetch',
    ],
    ['the beginning of a template', `fetch(\`${url}/v1/\${e}\`)`, 'fetch'],
    ['joined', `fetch("${url}"+"/v1")`, 'fetch'],
    ['joined for old browsers', `fetch("${url}".concat(e,"/v1"))`, 'fetch'],
    ['joined with a port', `var p=1;fetch("${url}:"+p+"/v1")`, 'fetch'],
    ['kept in a constant', `const e="${url}";fetch(\`\${e}/v1\`)`, 'fetch'],
    [
      'kept in a constant of the same name as another',
      `const e="${url}";function g(e){return e}function f(){fetch(e)}`,
      'fetch',
    ],
    ['kept, and used in a function before', `function f(){return fetch(e+"/v1")}var e="${url}"`, 'fetch'],
    ['kept in two steps', `const e="${url}",t=e+"/v1";fetch(t)`, 'fetch'],
    ['assigned later', `let e;e="${url}";fetch(e)`, 'fetch'],
    ['a member of an object', `const c={api:"${url}",size:2};fetch(c.api+"/v1")`, 'fetch'],
    ['deep in an object', `const c={api:{sailings:{base:"${url}"}}};fetch(c.api.sailings.base)`, 'fetch'],
    ['taken out of an object', `const c={api:"${url}"},{api:t}=c;fetch(t)`, 'fetch'],
    ['an object made fast', `const c=Object.freeze({api:"${url}"});fetch(c.api)`, 'fetch'],
    ['an object with more', `const d={api:"${url}"},c={...d,x:1};fetch(c.api)`, 'fetch'],
    ['a field of a class', `class A{base="${url}";go(){return fetch(this.base+"/v1")}}`, 'fetch'],
    [
      'a field set by the constructor',
      `class A{constructor(){this.base="${url}"}go(){return fetch(this.base)}}`,
      'fetch',
    ],
    ['a static field', `class A{static b="${url}";static go(){return fetch(this.b)}}`, 'fetch'],
    ['given to a function of the script', `function g(e,t){return fetch(t+"/v1")}g(1,"${url}")`, 'fetch'],
    [
      'given in an object to a function of the script',
      `const g=({base:e})=>fetch(e);g({base:"${url}"})`,
      'fetch',
    ],
    ['returned by a function', `const g=()=>"${url}";fetch(g()+"/v1")`, 'fetch'],
    ['returned by a function at its end', `function g(){return"${url}"}fetch(g())`, 'fetch'],
    ['made a URL', `fetch(new URL("${url}/v1"))`, 'fetch'],
    ['the base of a URL that is fetched', `fetch(new URL("/v1","${url}"))`, 'fetch'],
    ['what stands for a variable that was not set', `fetch(void 0??"${url}")`, 'fetch'],
    ['what stands for an environment that is not there', `fetch(({}).VITE_API||"${url}")`, 'fetch'],
    ['chosen by the path of the page', `fetch(location.pathname==="/a"?"${url}":"https://x.test")`, 'fetch'],
    ['what a flag for development leaves to visitors', `fetch(this.devMode?e:"${url}")`, 'fetch'],
    ['what visitors get by a flag that is denied', `fetch(!this.devMode?"${url}":e)`, 'fetch'],
    [
      'what a first visit has where nothing is stored',
      `fetch(localStorage.getItem("api")??"${url}")`,
      'fetch',
    ],
    ['what is kept of that', `const s=sessionStorage.api,b=s||"${url}";fetch(b)`, 'fetch'],
    [
      'what an address without a query leaves',
      `fetch(new URLSearchParams(location.search).get("api")||"${url}")`,
      'fetch',
    ],
    ['a default that a call leaves out', `function g(e="${url}"){fetch(e)}g()`, 'fetch'],
    [
      'a default that a class is made with',
      `class A{constructor(e="${url}"){this.b=e}go(){return fetch(this.b)}}new A().go()`,
      'fetch',
    ],
    [
      'a default of a class that is made at once',
      `new class{constructor(e="${url}"){this.b=e}go(){fetch(this.b)}}(void 0).go()`,
      'fetch',
    ],
    [
      'a private field',
      `class A{#b;constructor(e){this.#b=e}go(){return fetch(this.#b+"/v1")}}new A("${url}")`,
      'fetch',
    ],
    ['a private field of its own', `class A{#b="${url}";go(){return fetch(this.#b)}}`, 'fetch'],
    [
      'put together by a method',
      `class A{b="${url}";u(p){return this.b+p}go(){return fetch(this.u("/v1"))}}`,
      'fetch',
    ],
    ['read by a getter', `class A{get base(){return"${url}"}go(){return fetch(this.base)}}`, 'fetch'],
    ['a static field by its class', `class A{static B="${url}";static go(){return fetch(A.B)}}`, 'fetch'],
    [
      'given to the class above',
      `class A{constructor(u){this.u=u}go(){return fetch(this.u)}}class B extends A{constructor(){super("${url}")}}`,
      'fetch',
    ],
    [
      'given to a class that leaves its constructor to the one above',
      `class A{constructor(u){this.u=u}}class B extends A{go(){return fetch(this.u)}}new B("${url}")`,
      'fetch',
    ],
    [
      'given to a method of one name',
      `class A{withHost(h){this.h=h;return this}build(){return fetch(this.h)}}new A().withHost("${url}").build()`,
      'fetch',
    ],
    [
      'what a constructor is given, though a redirect changes it',
      `class A{constructor(u){this.u=u}go(){if(x)this.u=x;return fetch(this.u)}}new A("${url}")`,
      'fetch',
    ],
    ['the base of a client that somebody hands in', `use(c=>{c.baseURL="${url}";return c})`, 'client'],
    [
      'chosen where nothing names a stage',
      `const h={dev:"${url}",live:"https://x.test"};fetch(h[void 0]??h.dev)`,
      'fetch',
    ],
    ['kept in an object whose member is emptied', `const c={b:"${url}"};c.b=void 0;fetch(c.b)`, 'fetch'],
    ['the first of a list', `const s=["${url}"];fetch(s[0]+"/v1")`, 'fetch'],
    ['parts that are joined', `fetch(["${url}","v1"].join("/"))`, 'fetch'],
    [
      'the base that any function is given',
      `const g=c();function c(){return(u,o)=>u}g("/v1",{baseURL:"${url}"})`,
      'client',
    ],
    ['what visitors get in production', `fetch(mode==="production"?"${url}":e)`, 'fetch'],
    ['given to a class of a package', `import P from"pocket-client";new P("${url}")`, 'client'],
    ['given to a function of a package', `import{io as s}from"socket-client";s("${url}",{a:1})`, 'client'],
    ['given to the function that a package is', `import k from"ky";k("${url}")`, 'client'],
    [
      'requested where the other branch goes elsewhere',
      `if(ok){location.href="/done"}else{fetch("${url}")}`,
      'fetch',
    ],
    [
      'requested where the other branch calls the location',
      `ok?location.assign("/x"):fetch("${url}")`,
      'fetch',
    ],
    ['chosen by a flag', `fetch(flag?"${url}":"https://x.test")`, 'fetch'],
    ['a request', `fetch(new Request("${url}"))`, 'fetch'],
    ['opened', `x.open("GET","${url}/v1")`, 'XMLHttpRequest'],
    ['a socket', `new WebSocket("${url}")`, 'WebSocket'],
    ['a stream of events', `new EventSource("${url}/e")`, 'EventSource'],
    ['a beacon', `navigator.sendBeacon("${url}/b",d)`, 'beacon'],
    ['a worker', `new Worker("${url}/w.js")`, 'worker'],
    ['imported', `import("${url}/m.js")`, 'import'],
    ['the base of a client', `n.create({baseURL:"${url}",timeout:5})`, 'client'],
    ['the address of a client', `new L({uri:"${url}/graphql"})`, 'client'],
    ['a host among settings', `i.connect({transport:{host:"${url}"}})`, 'client'],
    ['requested by a client', `n.get("${url}/v1")`, 'client'],
    ['a socket client', `(0,s.io)("${url}")`, 'client'],
    ['the default of a client', `n.defaults.baseURL="${url}"`, 'client'],
    ['the source of an element', `i.src="${url}/a.js"`, 'element'],
    ['an attribute', `i.setAttribute("src","${url}/a.png")`, 'element'],
    ['a form', `(0,r.jsx)("form",{action:"${url}/send"})`, 'form'],
    ['a picture', `h("img",{src:"${url}/a.png"})`, 'element'],
    ['where the page goes', `location.href="${url}"`, 'navigation'],
    ['a message target', `w.postMessage(d,"${url}")`, 'message target'],
    ['configuration for all scripts', `window.CONFIG={apiUrl:"${url}"}`, 'configuration'],
    [
      'in a numbered module',
      `x={12:(e,t,n)=>{n.d(t,{a:()=>o});const o="${url}"},13:(e,t,n)=>{var r=n(12);fetch(r.a+"/v1")}}`,
      'fetch',
    ],
    [
      'a constant of a numbered module',
      `x={12(e,t,n){n.d(t,["a",0,"${url}","b",0,1])},13(e,t,n){var r=n(12);n.d(t,["c",0,()=>fetch(r.a+"/v1")])}}`,
      'fetch',
    ],
    ['opened by a function', `function s(m,u){var r=new X;r.open(m,u)}s("GET","${url}")`, 'XMLHttpRequest'],
    [
      'a host among parts',
      `const c={host:"${url}",port:1};fetch(\`http://\${c.host}:\${c.port}/\`)`,
      'fetch',
    ],
  ])('%s', (_, code, sink) => {
    expect(followed(code)).toContain(sink)
  })
})

describe('a URL is not requested when it is', () => {
  test.each<[string, string, string[]]>([
    [
      'a member of what is watched',
      `function f(e,m){let a=m.get(e);if(a)return a;let s=new Proxy(e,{});m.set(e,s)}f({server:"${url}"},n)`,
      [],
    ],
    ['a key of a map', `const m=new WeakMap;function f(e){return m.get(e)}f("${url}")`, ['compared']],
    [
      'a key of what keeps values',
      `function f(e,m){let a=m.get(e);if(a)return a;m.set(e,1)}f("${url}",n)`,
      ['compared'],
    ],
    ['only the base for reading a path', `new URL(e,"${url}").pathname`, ['base']],
    ['a fallback after the own address', `new URL(e,window.location.href||"${url}")`, ['after own address']],
    [
      'a fallback after the own address that is fetched',
      `fetch((self.location||{}).origin||"${url}")`,
      ['after own address'],
    ],
    [
      'assigned where the own address is not to be had',
      `class A{constructor(){window.origin?this.o=window.origin:this.o="${url}"}go(){fetch(this.o)}}`,
      ['after own address'],
    ],
    [
      'the other of two statements',
      `let a;if(typeof window<"u"){a=location.origin}else{a="${url}"}fetch(a)`,
      ['after own address'],
    ],
    ['compared', `location.origin==="${url}"`, ['compared']],
    ['looked for', `e.startsWith("${url}")`, ['compared']],
    ['one of the cases', `switch(e){case"${url}":f()}`, ['compared']],
    ['part of an error', `throw new TypeError("see ${url}")`, ['reported']],
    ['printed', `console.warn("listening on ${url}")`, ['reported']],
    [
      'for the machine of a developer',
      `fetch(location.hostname==="localhost"?"${url}":"https://x.test")`,
      ['guarded'],
    ],
    [
      'behind a test for the machine of a developer',
      `if(/localhost/.test(location.host)){fetch("${url}")}`,
      ['guarded'],
    ],
    ['the default of a setting', `function A(e){this.url=e.url||"${url}";fetch(this.url)}`, ['default']],
    ['the default of a parameter', `function g(e="${url}"){fetch(e)}`, ['default']],
    [
      'the default of a parameter, for old browsers',
      `function g(){var e=arguments.length>0&&void 0!==arguments[0]?arguments[0]:"${url}";fetch(e)}`,
      ['default'],
    ],
    [
      'a field that is set again',
      `class A{base="${url}";set(b){this.base=b}go(){return fetch(this.base)}}`,
      ['default'],
    ],
    ['for development, as a flag that is denied says', `fetch(!this.devMode?e:"${url}")`, ['guarded']],
    [
      'handed on where the host is a developer’s',
      `function c(a,u){fetch(u)}location.hostname==="localhost"&&c(1,"${url}")`,
      ['guarded'],
    ],
    [
      'assigned where the host is a developer’s',
      `let b="/";if(location.hostname==="localhost")b="${url}";fetch(b)`,
      ['guarded'],
    ],
    [
      'for the host of one case',
      `function f(){switch(location.hostname){case"localhost":return"${url}";default:return"/"}}fetch(f())`,
      ['guarded'],
    ],
    ['for the mode of one case', `switch(mode){case"development":fetch("${url}")}`, ['guarded']],
    ['for what is not production', `fetch(mode!=="production"?"${url}":e)`, ['guarded']],
    ['the other side of production', `fetch(import.meta.env.PROD?e:"${url}")`, ['guarded']],
    [
      'a default where every call gives another',
      `function g(e="${url}"){fetch(e)}g("https://x.test")`,
      ['replaced'],
    ],
    [
      'a default where every one is made with another',
      `class A{constructor(e="${url}"){fetch(e)}}new A(x)`,
      ['replaced'],
    ],
    ['a default of what others may call', `export function g(e="${url}"){fetch(e)}g(x)`, ['default']],
    ['given to a module of the own project', `import{io}from"./io.js";io("${url}")`, []],
    ['given to what asks nothing', `import{t}from"words";t("${url}")`, []],
    ['for a page that has no host', `fetch(window.location.hostname?"/":"${url}")`, ['guarded']],
    ['for a page that has no host, denied', `fetch(!location.host?"${url}":"/")`, ['guarded']],
    ['for a page from a disk', `fetch("file:"===location.protocol?"${url}":"/")`, ['guarded']],
    ['for a page from a disk, denied', `fetch(window.location.protocol!=="file:"?"/":"${url}")`, ['guarded']],
    ['for development, as the running program says', `fetch(this.devMode?"${url}":e)`, ['guarded']],
    [
      'what stands for the address of the page where there is none',
      `globalThis.location||={href:"${url}"}`,
      [],
    ],
    ['an attribute of a component', `jsx(Map,{url:"${url}"})`, []],
    ['an attribute of a component in a list', `jsx(Table,{rows:[{url:"${url}"}]})`, []],
    ['what names a schema', `j.setDiagnosticsOptions({schemas:[{uri:"${url}"}]})`, []],
    ['put into a message', `t("open",{interpolate:{localUrl:"${url}"}})`, []],
    ['kept and never used', `const e="${url}"`, []],
    ['in another scope', `{const e="${url}"}fetch(e)`, []],
    ['shown in a link', `(0,r.jsx)("a",{href:"${url}"})`, []],
    ['another member', `const c={docs:"${url}",api:"/v1"};fetch(c.api)`, ['another']],
    ['one of several in a table', `fetch({dev:"${url}",live:"https://x.test"}["live"])`, ['another']],
    [
      'for a host of a developer in a table',
      `fetch({localhost:"${url}"}[location.hostname]??"https://x.test")`,
      ['guarded'],
    ],
    [
      'one of a table by what nobody knows',
      `fetch({dev:"${url}",live:"https://x.test"}[stage])`,
      ['default'],
    ],
    ['a member that is given another', `const c={b:"${url}"};c.b="https://x.test";fetch(c.b)`, ['replaced']],
    [
      'a member that a function gives another, which is called where nobody knows',
      `const c={b:"${url}"};function s(){c.b="https://x.test"}if(x)s();fetch(c.b)`,
      ['default'],
    ],
    [
      'a member that a function gives another, which is called',
      `const c={b:"${url}"};function s(){c.b="https://x.test"}s();fetch(c.b)`,
      ['replaced'],
    ],
    [
      'a member that is perhaps given another',
      `const c={b:"${url}"};if(x)c.b="https://x.test";fetch(c.b)`,
      ['default'],
    ],
    ['a member that is given what nobody knows', `const c={b:"${url}"};c.b=x;fetch(c.b)`, ['default']],
    ['a name that is given another', `let b="${url}";if(x)b=x;fetch(b)`, ['default']],
    [
      'the base of a client that is given another',
      `const c=n.create({baseURL:"${url}"});c.defaults.baseURL="https://x.test";c.get("/v1")`,
      ['replaced'],
    ],
    [
      'the base of a client that is set up again',
      `const c=n.create({baseUrl:"${url}"});c.setConfig({baseUrl:"https://x.test"})`,
      ['replaced'],
    ],
    [
      'the base of a client that is set up again with what nobody knows',
      `const c=n.create({baseURL:"${url}"});c.defaults.baseURL=x`,
      ['default'],
    ],
    [
      'the default of an option that is given an address',
      `class C{constructor(c){this.c=c}get basePath(){return this.c.basePath!=null?this.c.basePath:"${url}"}}fetch(new C({basePath:"https://x.test"}).basePath)`,
      ['replaced'],
    ],
    [
      'for a host of a developer, by a test that has a name',
      `const l=["localhost"].includes(location.hostname);fetch(l?"${url}":"/")`,
      ['guarded'],
    ],
    [
      'for a host of a developer, by a name that is denied',
      `const l=location.hostname==="localhost";fetch(!l?"/":"${url}")`,
      ['guarded'],
    ],
    [
      'where a test that has a name is met',
      `const l=location.hostname==="localhost";function f(){if(l)fetch("${url}")}`,
      ['guarded'],
    ],
    [
      'for other hosts than one, by a test that has a name',
      `const l=location.hostname==="x.test";fetch(!l?"${url}":"https://x.test")`,
      ['other host'],
    ],
    [
      'for other hosts than one',
      `fetch(location.hostname.endsWith("x.test")?"https://x.test":"${url}")`,
      ['other host'],
    ],
    [
      'a method of a name that others have too',
      `class A{go(u){fetch(u)}}class B{go(){}}new A().go("${url}")`,
      [],
    ],
    ['a text to show', `(0,r.jsx)("p",{children:"${url}"})`, []],
    ['part of a list of names', `const names=["${url}"];names.forEach(show)`, []],
  ])('%s', (_, code, expected) => {
    expect(followed(code)).toEqual(expected)
  })
})

test.each<[string, string, string]>([
  ['a template', `const p=5;fetch(\`${url}/v\${p}/x\`)`, `${url}/v5/x`],
  ['a sum', `const p="/x";fetch("${url}"+p+e)`, `${url}/x`],
  ['parts of an object', `const c={u:"${url}",v:{n:2}};fetch(c.u+"/v"+c.v.n)`, `${url}/v2`],
  ['for old browsers', `fetch("${url}".concat("/a/",5))`, `${url}/a/5`],
  ['what can not be known', `fetch("${url}/"+e)`, `${url}/`],
])('the text is put together from %s', (_, code, text) => {
  const tree = builtTree(code)
  expect(tree && followText(code, tree, code.indexOf(url)).text).toBe(text)
})

test('constants that go in a circle are followed to an end', () => {
  const code = `var a="${url}"+b,b=a;fetch(a)`
  const tree = builtTree(code)
  expect(tree && [...followText(code, tree, code.indexOf(url)).sinks]).toEqual(['fetch'])
})

describe('a URL that another script imports', () => {
  test.each<[string, string, string]>([
    ['by its name', `var e="${url}";export{e as a}`, 'import{a as t}from"./config-x.js";fetch(`${t}/v1`)'],
    ['as it is declared', `export const a="${url}"`, 'import{a}from"./config-x.js";fetch(a)'],
    ['as the default', `export default"${url}"`, 'import t from"./config-x.js";fetch(t)'],
    [
      'in an object',
      `const e={api:"${url}"};export{e as c}`,
      'import{c as t}from"./config-x.js";fetch(t.api)',
    ],
    ['with all others', `export const a="${url}"`, 'import*as t from"./config-x.js";fetch(t.a)'],
    [
      'from a numbered module',
      `x={12:(e,t,n)=>{n.d(t,{a:()=>o});const o="${url}"}}`,
      'x={13:(e,t,n)=>{var r=n(12);fetch(r.a+"/v1")}}',
    ],
  ])('%s', (_, giver, taker) => {
    const tree = builtTree(giver)
    const other = builtTree(taker)
    if (!tree || !other) throw new Error('not a script')
    const { exported } = followText(giver, tree, giver.indexOf(url))
    expect(exported).toHaveLength(1)
    const [given] = exported
    const from = (specifier: string): boolean => specifier === './config-x.js'
    expect(given && [...followImport(taker, other, from, given).sinks]).toEqual(['fetch'])
    expect(
      given && [
        ...followImport(
          taker.replace('config-x', 'other').replace('n(12)', 'n(14)'),
          builtTree(taker.replace('config-x', 'other').replace('n(12)', 'n(14)')) ?? other,
          from,
          given,
        ).sinks,
      ],
    ).toEqual([])
  })
})

test('code of whatever shape is followed to an end', () => {
  const piece = fc.constantFrom(
    `"${url}"`,
    'const a=',
    ';',
    'a',
    '=>',
    '(',
    ')',
    '{',
    '}',
    'fetch(',
    'a=a+a;',
    'var a=b,b=a;',
    'function a(){return a()}',
    'class A{',
    'a=',
    '`${',
    '}`',
    '??',
    'x:',
    ',',
    'return ',
    'this.a',
  )
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 30 }), (pieces) => {
      const code = `${pieces.join('')}\n;0,"${url}"`
      const tree = builtTree(code)
      if (tree) expect(followText(code, tree, code.indexOf(url)).sinks.size).toBeGreaterThanOrEqual(0)
    }),
    { numRuns: 400 },
  )
})

test.each<[string, string, string[]]>([
  ['given to an element', `const u="/a.png";i.src=u`, ['element']],
  ['behind what nobody knows', `i.src=b+"/a.png"`, ['behind', 'element']],
  ['behind a base', `const a=p=>"/b/"+p;i.src=a("/a.png")`, ['behind', 'element']],
  ['behind nothing', `const a=p=>""+p;i.src=a("/a.png")`, ['element']],
  ['behind a list of parts', `fetch([b,"/a.png"].join(""))`, ['behind', 'fetch']],
  ['behind a base of another page', `fetch(new URL("/a.png",b))`, ['behind', 'fetch']],
  ['behind the address of the page', `fetch(new URL("/a.png",location.href))`, ['fetch']],
  ['an item of a list', `[{p:"/a.png"}].filter(e=>e.p).forEach(e=>{i.src=e.p})`, ['element']],
  ['an item of a list that is found', `i.src=["/a.png"].find(e=>e===x)`, ['compared', 'element']],
])('a path %s', (_, code, expected) => {
  expect(followed(code, code.indexOf('/a.png')).sort()).toEqual(expected)
})
