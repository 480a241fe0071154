import { describe } from 'vitest'
import { checkCases, page } from '../../../../test/support/cases.ts'

const script = '<script type="module" src="/b/assets/app.js"></script>'
const built = (code: string, more: Record<string, string> = {}): Record<string, string> => ({
  'index.html': page(script),
  'assets/app.js': code,
  'logo.svg': '<svg xmlns="http://www.w3.org/2000/svg"/>',
  'data/tides.json': '[]',
  'about/index.html': page(''),
  ...more,
})
const vite = {
  'package.json': '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
  'vite.config.js': "export default { base: '/b/' }",
}
const inDist = (files: Record<string, string>): Record<string, string> =>
  Object.fromEntries(Object.entries(files).map(([path, text]) => [`dist/${path}`, text]))

describe('base/double-slash', () => {
  checkCases(['base/double-slash', 'endpoint/private-network'], {
    'a file that is asked of a host of its name': {
      files: built('document.images[0].src = "//logo.svg"'),
      finds: ['base/double-slash blocker ×1'],
      says: ['browsers take logo.svg for a host', 'A file the page requests does not arrive'],
    },
    'data below a directory': {
      files: built('fetch("//data/tides.json?at=1")'),
      finds: ['base/double-slash blocker ×1'],
    },
    'a link': {
      files: built('', { 'index.html': page(`${script}<a href="//about/">a</a><a href="//about">b</a>`) }),
      finds: ['base/double-slash blocker ×2'],
      says: ['Whoever follows 2 links', '"text":"/b/about/"'],
    },
    'a service that is asked of a host of its first step': {
      files: built('fetch("//api/tides").then(show)'),
      finds: ['base/double-slash blocker ×1'],
      says: ['browsers take api for a host', '"text":"/b/api/tides"'],
    },
    'a text of that form that nobody asks': { files: built('document.evaluate("//div/span")'), finds: [] },
    'a host of a real name, with a file of that name below a directory': {
      files: built('fetch("//cdn.example/a.json")', { 'cdn.example/a.json': '[]' }),
      finds: [],
    },
    'a file that is not in the folder': {
      files: built('fetch("//data/harbours.json")'),
      finds: ['base/double-slash blocker ×1'],
      says: ['browsers take data for a host'],
    },
    'a comment and a pattern': { files: built('// //logo.svg\nx.replace(/\\/\\/logo.svg/, "")'), finds: [] },
    'two slashes below the base: hosts differ': {
      files: built('document.images[0].src = "/b//logo.svg"'),
      finds: ['base/double-slash caution ×1'],
      says: ['servers of files answer /b//logo.svg as /b/logo.svg', '"text":"/b/logo.svg"'],
    },
    'two slashes in a link': {
      files: built('', { 'index.html': page(`${script}<a href="/b//about/">a</a>`) }),
      host: 'files',
      finds: ['base/double-slash caution ×1'],
    },
    'two slashes before a file that is not there at all': {
      files: built('document.images[0].src = "/b//sign.svg"'),
      finds: [],
    },
    'a text of the sources that puts them together, and one that does not': {
      files: {
        ...vite,
        ...inDist(built('document.images[0].src = "/b//logo.svg"')),
        'src/main.js':
          "const base = import.meta.env.BASE_URL\nimg.src = `${base}/logo.svg`\nother(`${database}/logo.svg`)\nfetch(import.meta.env.BASE_URL + '/data/tides.json')",
        'index.html':
          '<link rel="icon" href="%BASE_URL%/logo.svg"><script type="module" src="/src/main.js"></script>',
      },
      finds: ['base/double-slash caution ×1'],
      says: [
        'In src/main.js, line 2, write  img.src = `${base}logo.svg`',
        "In src/main.js, line 4, write  fetch(import.meta.env.BASE_URL + 'data/tides.json')",
        '%BASE_URL%logo.svg',
      ],
    },
    'a framework that may leave the slash out': {
      files: {
        'package.json': '{"name":"s","scripts":{"build":"astro build"},"dependencies":{"astro":"6"}}',
        'astro.config.mjs': "export default { base: '/b' }",
        ...inDist(built('', { 'index.html': page(`${script}<a href="/b//about/">a</a>`) })),
        'src/pages/index.astro': '<a href={`${import.meta.env.BASE_URL}/about/`}>a</a>',
      },
      host: 'files',
      finds: ['base/double-slash caution ×1'],
      says: ["`${import.meta.env.BASE_URL.replace(/\\\\/$/, '')}/about/`"],
    },
  })
})
