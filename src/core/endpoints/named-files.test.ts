import { describe } from 'vitest'
import { checkCases, page } from '../../../test/support/cases.ts'

const missing = ['asset/missing blocker ×1']

/** A build of this project's own script, beside one picture that is there. */
const built = (code: string): Record<string, string> => ({
  'index.html': page('<script type="module" src="/b/app.js"></script>'),
  'app.js': code,
  'img/crew.svg': '<svg xmlns="http://www.w3.org/2000/svg"/>',
})

/** The same code with the name of a file that is there, which is sound, and of one that is not. */
const both = (title: string, code: (name: string) => string): Parameters<typeof checkCases>[1] => ({
  [`${title}, missing`]: { files: built(code('img/hero.svg')), host: 'files', finds: missing },
  [`${title}, sound`]: { files: built(code('img/crew.svg')), host: 'files', finds: [] },
})

describe('names of files behind a base that scripts put before them', () => {
  checkCases(['asset/missing', 'asset/letter-case', 'base/wrong-path'], {
    ...both('a function', (name) => `var a=e=>"/b/"+e;i.src=a("${name}")`),
    ...both(
      'a function that takes off slashes',
      (name) => `var a=e=>"/b/".replace(/\\/$/,"")+e;i.src=a("/${name}")`,
    ),
    ...both(
      'a name whose slash is taken off',
      (name) => `var b="/b/";function a(e){return b+e.replace(/^\\//,"")}i.src=a("/${name}")`,
    ),
    ...both('a constant', (name) => `var b="/b/";i.src=b+"${name}"`),
    ...both('a template', (name) => `var b="/b/";i.src=\`\${b}${name}\``),
    ...both('a list', (name) => `var b="/b/";for(let n of["${name}"])i.src=b+n`),
    ...both(
      'a list in markup',
      (name) => `i.innerHTML=[{p:"${name}"}].map(e=>\`<img alt="" src="/b/\${e.p}">\`).join("")`,
    ),
    ...both(
      'a property of a component',
      (name) => `var u=e=>"/b/"+e;function P({n:e}){return r.jsx("img",{src:u(e)})}r.jsx(P,{n:"${name}"})`,
    ),
    ...both('a style', (name) => `var u=e=>({backgroundImage:\`url(\${e})\`});f(u("/b/${name}"))`),
    ...both('a sound', (name) => `var s={h:"/b/${name}"};b.onclick=()=>new Audio(s.h).play()`),
    ...both('what is fetched', (name) => `fetch((e=>"/b/"+e)("${name}"))`),
    'a slash alone is put before it, below a path': {
      files: built('var a=e=>"/"+e;i.src=a("img/crew.svg")'),
      host: 'files',
      finds: ['base/wrong-path blocker ×1'],
      says: ['https://skerryline.example/img/crew.svg'],
    },
    'another case of letters': {
      files: built('var a=e=>"/b/"+e;i.src=a("img/Crew.svg")'),
      host: 'files',
      finds: ['asset/letter-case blocker ×1'],
    },
    'data that a server may make': {
      files: built('fetch((e=>"/b/"+e)("tides.json"))'),
      host: 'files',
      finds: ['asset/missing caution ×1'],
    },
    'the base of a build for another path, of which nothing is written by hand': {
      files: {
        ...built(
          'var a=e=>"/".replace(/\\/$/,"")+e;i.src=a("/img/crew.svg");j.src="/"+n;k.src=f("img/crew.svg")',
        ),
        'index.html': page('<script type="module" src="/app.js"></script>'),
      },
      host: 'files',
      finds: ['base/wrong-path blocker ×1'],
    },
    'a part of a name before it': {
      files: built('var b="/b/img/cr";i.src=b+"ew.svg"'),
      host: 'files',
      finds: [],
    },
    'one helper inside another': {
      files: built('var a=e=>"img/"+e,b=e=>"/b/"+a(e);i.src=b("crew.svg");j.src=b("hero.svg")'),
      host: 'files',
      finds: [],
    },
    'a base of another host': {
      files: built('var a=e=>"https://pictures.example/"+e;i.src=a("img/hero.svg")'),
      finds: [],
    },
    'a base that only the running page knows': {
      files: built(
        'var a=e=>window.base+e;i.src=a("img/hero.svg");i.src=`${x}img/hero.svg`;i.src=x+"/hero.svg"',
      ),
      finds: [],
    },
    'a name that nothing loads': {
      files: built('var a=e=>"/b/"+e;say(a("img/hero.svg"));say(`${b}hero.svg`)'),
      finds: [],
    },
    'more than one part before it': {
      files: built('var b="/b/";i.src=`${b}${x}hero.svg`'),
      finds: [],
    },
  })
})

/** A project whose list names one picture that is there and one that is not, and what its build does with them. */
const withList = (show: string, missing = 'gone.svg'): Record<string, string> => ({
  'package.json': '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
  'src/boats.json': `[{"image":"/b/img/${missing}"}]`,
  'dist/index.html': page('<script type="module" src="/b/app.js"></script>'),
  'dist/app.js': `var q=[{image:\`/b/img/${missing}\`}];keep(q);${show}`,
  'dist/img/crew.svg': '<svg xmlns="http://www.w3.org/2000/svg"/>',
})
const fetched = (show: string): Record<string, string> => ({
  ...withList(`fetch("/b/boats.json").then(f);${show}`, 'crew.svg'),
  'public/boats.json': '[{"image":"/b/img/gone.svg"}]',
  'dist/boats.json': '[{"image":"/b/img/gone.svg"}]',
})

describe('names in lists, by what scripts do with all that stands under such a name', () => {
  checkCases(['asset/missing', 'base/wrong-path'], {
    'shown, missing': { files: withList('i.src=e.image'), host: 'files', finds: missing },
    'shown, sound': { files: withList('i.src=e.image', 'crew.svg'), host: 'files', finds: [] },
    'set by a framework, missing': {
      files: withList('s(n,`src`,Q(t).image)'),
      host: 'files',
      finds: missing,
    },
    'behind a base': { files: withList('i.src=b+e.image'), host: 'files', finds: [] },
    'never shown': { files: withList('p.textContent=e.image'), host: 'files', finds: [] },
    'in data, missing': { files: fetched('i.src=e.image'), host: 'files', finds: missing },
    'in data, behind a base': { files: fetched('i.src=b+e.image'), host: 'files', finds: [] },
    'in data that nobody fetches': {
      files: { ...fetched(''), 'dist/app.js': 'i.src=e.image' },
      host: 'files',
      finds: [],
    },
    'in data, never shown': { files: fetched('p.textContent=e.image'), host: 'files', finds: [] },
  })
})
