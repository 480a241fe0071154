import { describe } from 'vitest'
import { checkCases, page } from '../../../../test/support/cases.ts'

const helper = 'export const env = (name) => process.env[name]\n'
const project = (
  framework: string,
  script: string,
  more: Record<string, string> = {},
): Record<string, string> => ({
  'package.json': JSON.stringify({
    name: 's',
    scripts: { build: `${framework} build` },
    dependencies: { [framework]: '16' },
  }),
  'next.config.js': "module.exports = { output: 'export', basePath: '/b' }",
  'lib/env.js': helper,
  'app/page.js': "'use client'\nimport { env } from '../lib/env'\nfetch(env('NEXT_PUBLIC_API') + '/tides')\n",
  '.env': 'NEXT_PUBLIC_API=https://api.skerryline.example\n',
  'out/index.html': page('<script src="/b/_next/static/chunks/app.js"></script>'),
  'out/_next/static/chunks/app.js': script,
  ...more,
})
const left = 'var i=r(1);fetch((t=>i.default.env[t])("NEXT_PUBLIC_API")+"/tides")'

describe('env/unreplaced, read by a name', () => {
  checkCases(['env/absent', 'env/unreplaced'], {
    'a name that is handed on, where the build replaces whole names': {
      files: project('next', left),
      finds: ['env/unreplaced blocker ×1'],
      says: ['lib/env.js, line 1, reads process.env by a name', '"text":"process.env.NEXT_PUBLIC_API"'],
    },
    'read by its whole name': {
      files: project('next', 'fetch("https://api.skerryline.example"+"/tides")', {
        'app/page.js': "fetch(process.env.NEXT_PUBLIC_API + '/tides')",
      }),
      finds: [],
    },
    'a name that the bundler puts in where it sees the call': {
      files: project('next', 'var n=r(1);fetch(`${n.default.env.NEXT_PUBLIC_API}/tides`)'),
      finds: ['env/unreplaced blocker ×1'],
      says: ['"text":"process.env.NEXT_PUBLIC_API"'],
    },
    'a name of which no file says that it is set': {
      files: project('next', left, { '.env': '' }),
      finds: ['env/unreplaced blocker ×1'],
      says: ['Set NEXT_PUBLIC_API where the build runs, if it is not set there.'],
    },
    'read so on the server alone': {
      files: project('next', 'var i=r(1);debug(i.default.env[t])'),
      finds: [],
    },
    'a build that holds a table of all values': {
      files: project(
        'next',
        'fetch((t=>({NEXT_PUBLIC_API:"https://api.skerryline.example"})[t])("NEXT_PUBLIC_API")+"/tides");x(p.env[q])',
      ),
      finds: [],
    },
    'the rest of a name, with what is to stand in for it': {
      files: project(
        'next',
        'var i=r(1);show(((k,o)=>i.default.env[`NEXT_PUBLIC_${k}`]??o)("TITLE","Tides"))',
        {
          'lib/env.js': 'export const config = (key, other) => process.env[`NEXT_PUBLIC_${key}`] ?? other\n',
          'app/page.js':
            "import { config } from '../lib/env'\nshow(config('TITLE', 'Tides'))\nshow(config('NOTE', 'none'))\n",
          '.env': 'NEXT_PUBLIC_TITLE=Skerry tides\n',
        },
      ),
      finds: ['env/unreplaced caution ×1'],
      says: ["(process.env.NEXT_PUBLIC_TITLE ?? 'Tides')"],
    },
  })
})

describe('env/unreplaced, of an environment that is emptied', () => {
  checkCases(['env/absent', 'env/unreplaced'], {
    'one finding, though the request begins with undefined': {
      files: {
        'package.json': '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
        'vite.config.js': "export default { base: '/b/' }",
        'index.html': '<script type="module" src="/src/main.js"></script>',
        'src/main.js': "fetch(process.env.API_URL + '/tides')",
        'dist/index.html': page('<script type="module" src="/b/assets/app-AbCdEf12.js"></script>'),
        'dist/assets/app-AbCdEf12.js': 'fetch({}.API_URL+`/tides`)',
      },
      finds: ['env/unreplaced blocker ×1'],
    },
  })
})
