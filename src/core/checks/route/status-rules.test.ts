import { describe } from 'vitest'
import { checkCases } from '../../../../test/support/cases.ts'

const page = (inner: string): string => `<!doctype html><title>Skerry Line</title>${inner}`
const project = (rules: Readonly<Record<string, string>>) => ({
  'package.json':
    '{"name":"s","scripts":{"build":"vite build"},"devDependencies":{"vite":"8","vue-router":"4"}}',
  'vite.config.js': 'export default { base: "/" }',
  'src/main.js':
    'import { createRouter, createWebHistory } from "vue-router"\ncreateRouter({ history: createWebHistory(import.meta.env.BASE_URL), routes: [{ path: "/harbours", component: A }] })',
  'dist/index.html': page('<script type="module" src="/assets/app-AbCdEf12.js"></script>'),
  'dist/assets/app-AbCdEf12.js': '1',
  ...rules,
})
const at = { host: 'files', site: 'https://skerryline.example/' }
const json = (value: unknown): string => JSON.stringify(value, null, 2)

describe('rules that take an answer by its status', () => {
  checkCases('route/', {
    'a page for an error, with status 200': {
      files: project({
        'hosting.json': json({
          errorResponses: [{ errorCode: 404, responsePagePath: '/index.html', responseCode: 200 }],
        }),
      }),
      ...at,
      finds: [],
    },
    'the same with the status kept': {
      files: project({ 'hosting.yml': 'errors:\n  - status: 404\n    document: /index.html\n' }),
      ...at,
      finds: ['route/error-status caution ×1'],
    },
    'a page that the folder does not hold': {
      files: project({
        'hosting.json': json({
          errorResponses: [{ errorCode: 404, responsePagePath: '/lost.html', responseCode: 200 }],
        }),
      }),
      ...at,
      finds: ['route/no-answer blocker ×1', 'route/rule-misses caution ×1'],
      says: ['and dist does not hold lost.html.'],
    },
    'a page for another error changes nothing': {
      files: project({
        'hosting.json': json({
          errorResponses: [{ errorCode: 403, responsePagePath: '/index.html', responseCode: 200 }],
        }),
      }),
      ...at,
      finds: ['route/no-answer blocker ×1'],
    },
    "to a storage's own name, by plain http": {
      files: project({
        'storage.json': json({
          RoutingRules: [
            {
              Condition: { ErrorCodeEquals: '404' },
              Redirect: { Protocol: 'http', Host: 'bucket.storage.example', ReplacePrefixWith: '#!/' },
            },
          ],
        }),
      }),
      ...at,
      finds: ['route/redirect-leaves-site blocker ×1', 'route/hash-handoff caution ×1'],
      says: ['sends a visitor to http://bucket.storage.example, by plain http'],
    },
    'in XML, behind a hash that nobody takes': {
      files: project({
        'rules.xml':
          '<?xml version="1.0"?><Rules><Rule><Condition><Status>404</Status></Condition><Redirect><ReplacePrefix>#!/</ReplacePrefix><Code>302</Code></Redirect></Rule></Rules>',
      }),
      ...at,
      finds: ['route/hash-handoff caution ×1'],
      says: ['/* → /#!/:splat 302, in place of 404 hands the path over behind a hash'],
    },
    'to the wrong protocol': {
      files: project({
        'rules.toml':
          '[[rules]]\n[rules.when]\nstatus = 404\n[rules.then]\nprotocol = "http"\npath = "index.html"\n',
      }),
      ...at,
      finds: ['route/redirect-leaves-site blocker ×1'],
      says: ['sends a visitor to http://skerryline.example, by plain http'],
    },
    'the beginning of a path in place of another': {
      files: {
        ...project({
          'rules.json': json([
            { condition: { pathPrefix: 'harbours/' }, redirect: { prefix: 'ports/', status: 302 } },
          ]),
        }),
        'dist/ports/aldwick/index.html': page('Aldwick'),
        'dist/index.html': page('<a href="/harbours/aldwick/">Aldwick</a>'),
      },
      ...at,
      finds: ['route/no-answer blocker ×1'],
      says: ['/harbours'],
    },
    'a condition that nobody knows beforehand is passed over': {
      files: project({
        'rules.json': json([{ condition: { country: 'x', status: 404 }, redirect: { path: 'index.html' } }]),
      }),
      ...at,
      finds: ['route/no-answer blocker ×1'],
    },
  })
})
