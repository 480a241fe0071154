import { describe } from 'vitest'
import { checkCases, page } from '../../../../test/support/cases.ts'

const script = '<script type="module" src="a.js"></script>'
const bare = (code: string, more: Record<string, string> = {}): Record<string, string> => ({
  'index.html': page(script),
  'a.js': code,
  ...more,
})
const vite = (source: string, built = source): Record<string, string> => ({
  'package.json': '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
  'src/main.js': source,
  'dist/index.html': page('<script type="module" src="/b/a.js"></script>'),
  'dist/a.js': built,
})

describe('project/node-name and env/unreplaced', () => {
  checkCases(['project/node-name', 'env/unreplaced'], {
    'the global object, as soon as a script runs': {
      files: bare('global.setTimeout(f,5)'),
      finds: ['project/node-name blocker ×1'],
      says: ['The script stops with \\"global is not defined\\"', 'Write globalThis in its place.'],
    },
    'in a script that another one imports': {
      files: bare('import"./b.js"', { 'b.js': 'Buffer.from("a")' }),
      finds: ['project/node-name blocker ×1'],
    },
    'in a page': {
      files: { 'index.html': page('<script>require("./a.js")</script>') },
      finds: ['project/node-name blocker ×1'],
    },
    'that the page makes': {
      files: {
        'index.html': page(`<script>window.global=window</script>${script}`),
        'a.js': 'global.setTimeout(f,5)',
      },
      finds: [],
    },
    'in a function, which nobody may call': { files: bare('function g(){global.x()}'), finds: [] },
    'in a file that is for Node': {
      files: bare('const name="node.js"', { 'node.js': 'global.x();require("fs")' }),
      finds: [],
    },
    'a variable that nothing replaced': {
      files: bare('fetch(process.env.SAILINGS_API)'),
      finds: ['env/unreplaced blocker ×1'],
      says: ['The script stops with \\"process is not defined\\" where it reads SAILINGS_API.'],
    },
    'a variable that nothing replaced, in a function of the project': {
      files: vite('export const load = () => fetch(process.env.SAILINGS_API)'),
      finds: ['env/unreplaced blocker ×1'],
      says: ['"file":"src/main.js","line":1', 'Read it as import.meta.env.VITE_NAME'],
    },
    'a variable of the empty object that a builder leaves': {
      files: vite('fetch(process.env.SAILINGS_API + "/v1")', 'var e={};fetch(e.SAILINGS_API+"/v1")'),
      finds: ['env/unreplaced blocker ×1'],
      says: ['"file":"src/main.js","line":1'],
    },
    'a variable with a default': {
      files: vite('fetch(process.env.SAILINGS_API || "/v1")', 'var e={};fetch(e.SAILINGS_API||"/v1")'),
      finds: [],
    },
    'a variable that is asked for': {
      files: bare('typeof process<"u"&&process.env.SAILINGS_API&&f()'),
      finds: [],
    },
  })
})
