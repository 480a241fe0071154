import { describe } from 'vitest'
import { checkCases, page } from '../../../../test/support/cases.ts'

const app = { 'assets/a.js': '', 'assets/a.css': '' }
const head = (base: string): string =>
  page(`<script src="${base}assets/a.js"></script><link rel=stylesheet href="${base}assets/a.css">`)

describe('base/wrong-path', () => {
  checkCases(['asset/missing', 'base/wrong-path'], {
    'built for its own base': { files: { ...app, 'index.html': head('/b/') }, finds: [] },
    'built for the root': {
      files: { ...app, 'index.html': head('/') },
      finds: ['base/wrong-path blocker ×2'],
      says: [
        'under /; this site serves them under /b/',
        'Or serve the folder at https://skerryline.example/,',
      ],
    },
    'built for a sub-path, served at the root': {
      files: { ...app, 'index.html': head('/b/') },
      site: 'https://skerryline.example/',
      host: 'files',
      finds: ['base/wrong-path blocker ×2'],
    },
    'three hundred files are one finding': {
      files: {
        'index.html': page(Array.from({ length: 300 }, (_, i) => `<img src="/pics/${i}.png">`).join('')),
        ...Object.fromEntries(Array.from({ length: 300 }, (_, i) => [`pics/${i}.png`, ''])),
      },
      finds: ['base/wrong-path blocker ×300'],
    },
    'one URL written by hand': {
      files: { ...app, 'index.html': `${head('/b/')}<img src="/logo.png">`, 'logo.png': '' },
      finds: ['base/wrong-path blocker ×1'],
      says: ['A URL leaves out the base path'],
    },
    'one icon written by hand': {
      files: { ...app, 'index.html': `${head('/b/')}<link rel=icon href="/logo.png">`, 'logo.png': '' },
      finds: ['base/wrong-path caution ×1'],
    },
    'both at once are two': {
      files: { ...app, 'index.html': `${head('/old/')}<img src="/logo.png">`, 'logo.png': '' },
      finds: ['base/wrong-path blocker ×2', 'base/wrong-path blocker ×1'],
    },
    'files of another site on the same origin': {
      files: { ...app, 'index.html': `${head('/b/')}<script src="/shared/header.js"></script>` },
      host: 'files',
      finds: ['asset/missing blocker ×1'],
    },
  })
})

describe('base/unreplaced-marker', () => {
  const sound = { ...app, 'index.html': head('/b/') }
  const withIcon = (href: string): Record<string, string> => ({
    ...app,
    'index.html': `${head('/b/')}<link rel=icon href="${href}">`,
  })
  checkCases('base/unreplaced-marker', {
    none: { files: sound, finds: [] },
    "a framework's own": {
      files: withIcon('%PUBLIC_URL%/icon.svg'),
      finds: ['base/unreplaced-marker blocker ×1'],
      says: ['%PUBLIC_URL%'],
    },
    'in <base>': {
      files: {
        'index.html': page('<base href="$FLUTTER_BASE_HREF"><script src="a.js"></script>'),
        'a.js': '',
      },
      finds: ['base/unreplaced-marker blocker ×1'],
    },
    "another program's": {
      files: withIcon('{{ asset_url }}/icon.svg'),
      finds: ['base/unreplaced-marker note ×1'],
    },
    'percent-encoded': {
      files: withIcon('%7B%7B%20asset_url%20%7D%7D/icon.svg'),
      finds: ['base/unreplaced-marker note ×1'],
    },
    'many are one': {
      files: {
        ...app,
        'index.html': `${head('/b/')}<img src="<%= a %>x.png"><a href="[[b]]">y</a><img src="__CDN_URL__/z.png">`,
      },
      finds: ['base/unreplaced-marker note ×3'],
    },
    'a file that is really called so': {
      files: { ...withIcon('__ICON__.svg'), '__ICON__.svg': '' },
      finds: [],
    },
  })
})

describe('base/addresses-disagree', () => {
  const project = (config: string, more: Record<string, string>): Record<string, string> => ({
    'package.json': '{"name":"a","scripts":{"build":"astro build"},"devDependencies":{"astro":"5.0.0"}}',
    'astro.config.mjs': `export default { ${config} }`,
    'dist/index.html': page('<link rel="icon" href="/mark.svg">'),
    'dist/mark.svg': '<svg xmlns="http://www.w3.org/2000/svg"/>',
    ...more,
  })
  const site = 'https://skerryline.example/'
  checkCases('base/addresses-disagree', {
    'a configuration and a domain file that agree': {
      files: project("site: 'https://skerryline.example'", { 'public/CNAME': 'skerryline.example\n' }),
      site,
      finds: [],
    },
    'two hosts': {
      files: project("site: 'https://docs.skerryline.example'", { 'public/CNAME': 'skerryline.example' }),
      site,
      finds: ['base/addresses-disagree caution ×1'],
      says: ['astro.config.mjs:1 names docs.skerryline.example; public/CNAME:1 names skerryline.example'],
    },
    'a domain file that only the build has, beside a base path': {
      files: {
        ...project("base: '/crossings/'", { 'dist/CNAME': 'skerryline.example' }),
        'dist/index.html': page('<link rel="icon" href="/crossings/mark.svg">'),
      },
      site: 'https://skerry.test/crossings/',
      finds: ['base/addresses-disagree caution ×1'],
      says: [
        'dist/CNAME gives the site the domain skerryline.example',
        'set the base path to / in astro.config.mjs, line 1',
      ],
    },
    'a path below the domain that somebody names': {
      files: {
        ...project("base: '/crossings/'", { 'dist/CNAME': 'skerryline.example' }),
        'dist/index.html': page('<link rel="icon" href="/crossings/mark.svg">'),
      },
      site: 'https://skerryline.example/crossings/',
      finds: [],
    },
    'files in capitals that hold no domain': {
      files: project('', { 'public/README': 'Read me.', 'public/LICENSE': 'MIT' }),
      site,
      finds: [],
    },
  })
})
