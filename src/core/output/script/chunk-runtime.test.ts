import { expect, test } from 'vitest'
import { chunksOf } from './chunk-runtime.ts'

const around = (functions: string, path: string): string =>
  `(()=>{var r={};function n(e){}${functions}n.o=(e,t)=>1,${path}n.l=(e)=>{}})()`

function chunks(code: string): string[] {
  return chunksOf(code).map(({ kind, raw, against, offset, length }) => {
    expect(code.slice(offset, offset + length).length).toBeGreaterThan(0)
    return `${kind} ${raw} ${against}`
  })
}

test.each<[string, string, string[]]>([
  [
    'chunks that are taken from another build, and have no script',
    `${around('a.u=e=>e+".js",', 'a.p="/b/",')}a.f.j=(r,t)=>{var n=e[r];if(0!==n)if(n)t.push(n[2]);else if(/^(337|441)$/.test(r))e[r]=0;else{a.l(a.p+a.u(r))}};a.e(337);a.e(441);a.e(5)`,
    ['lazy-import /b/5.js file'],
  ],
  [
    'one such chunk, as it is written the other way round',
    `${around('a.u=e=>e+".js",', 'a.p="/b/",')}if(441!=t){const i=new Promise((r,n)=>o=e[t]=[r,n]);a.l(a.p+a.u(t))}a.e(441);a.e(5)`,
    ['lazy-import /b/5.js file'],
  ],
  [
    'one such chunk',
    `${around('a.u=e=>e+".js",', 'a.p="/b/",')}if(441==r)e[r]=0;else{a.l(a.p+a.u(r))}a.e(441);a.e(5)`,
    ['lazy-import /b/5.js file'],
  ],
  [
    'one chunk, loaded under another name of the require function',
    `${around('a.u=e=>"js/"+e+".6607.js",', 'a.p="/b/",')};f=(t)=>t.e(7).then(t.bind(t,"uh"));x.e(9);y.e("z").then(1)`,
    ['lazy-import /b/js/7.6607.js file'],
  ],
  [
    'one chunk, whose module is taken by a call of the require function under another name',
    `${around('a.u=e=>"js/"+e+".6607.js",', 'a.p="/b/",')};f=(t)=>t.e(0).then(()=>t("uh"));x.e(9).then(()=>x.t(1));y.e("z").then(()=>fly(1))`,
    ['lazy-import /b/js/0.6607.js file'],
  ],
  [
    'a table of hashes',
    around('n.u=e=>"static/js/"+e+"."+{51:"7c3f0a1b",179:"aa11bb22"}[e]+".chunk.js",', 'n.p="/b/",'),
    [
      'lazy-import /b/static/js/51.7c3f0a1b.chunk.js file',
      'lazy-import /b/static/js/179.aa11bb22.chunk.js file',
    ],
  ],
  [
    'names and hashes, and a chunk without a name',
    around('n.u=e=>"js/"+({61:"harbours"}[e]||e)+"."+{61:"19e68a29",780:"ccd21430"}[e]+".js",', 'n.p="/",'),
    ['lazy-import /js/harbours.19e68a29.js file', 'lazy-import /js/780.ccd21430.js file'],
  ],
  [
    'a function that returns',
    around('n.u=function(e){return{293:"index"}[e]+"-"+{293:"cfdc"}[e]+".js"},', 'n.p="/b/",'),
    ['lazy-import /b/index-cfdc.js file'],
  ],
  [
    'comparisons in place of a table',
    around('n.u=e=>635===e?"a/635.js":7===e?"b/7-x.js":void 0,', 'n.p="/",'),
    ['lazy-import /a/635.js file', 'lazy-import /b/7-x.js file'],
  ],
  [
    'several returns',
    around('n.u=function(e){if(e===1)return"one.js";return"c/"+e+"."+{2:"ff"}[e]+".js"},', 'n.p="/",'),
    ['lazy-import /one.js file', 'lazy-import /c/2.ff.js file'],
  ],
  [
    'style sheets',
    around('n.u=e=>"js/"+e+"."+{5:"aa"}[e]+".js",n.miniCssF=e=>"css/"+e+"."+{5:"bb"}[e]+".css",', 'n.p="/",'),
    ['lazy-import /js/5.aa.js file', 'style /css/5.bb.css file'],
  ],
  [
    'no style sheets',
    around('n.u=e=>e+"."+{5:"aa"}[e]+".js",n.miniCssF=e=>{},', 'n.p="/",'),
    ['lazy-import /5.aa.js file'],
  ],
  [
    'a path from the page',
    around('n.u=e=>e+"."+{5:"aa"}[e]+".js",', 'n.p="./",'),
    ['lazy-import ./5.aa.js page'],
  ],
  [
    "a path from the script's own address",
    around('n.u=e=>e+"."+{5:"aa"}[e]+".js",', 'n.p=e+"../",'),
    ['lazy-import ../5.aa.js file'],
  ],
  [
    'another origin',
    around('n.u=e=>e+"."+{5:"aa"}[e]+".js",', 'n.p="https://cdn.example/",'),
    ['lazy-import https://cdn.example/5.aa.js file'],
  ],
  [
    'no table, and ids that are loaded',
    `${around('n.u=e=>e+".js",', 'n.p="/",')}n.e(12).then(n.bind(n,3));n.e("x")`,
    ['lazy-import /12.js file', 'lazy-import /x.js file'],
  ],
  ['what can not be folded', around('n.u=e=>window.names[e]+".js",', 'n.p="/",'), []],
  ['broken code', 'n.u=e=>"a"+{1:"b"}[e', []],
  ['another member of that name', 'x.u=e=>e+1', []],
])('a runtime with %s', (_, code, expected) => {
  expect(chunks(code)).toEqual(expected)
})
