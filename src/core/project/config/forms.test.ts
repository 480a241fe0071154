import { expect, test } from 'vitest'
import { MemoryFolder } from '../../model/memory-folder.ts'
import { surveyProject } from '../survey-project.ts'

const manifest = (framework: string, build: string): string =>
  JSON.stringify({ name: 's', scripts: { build }, devDependencies: { [framework]: '1' } })

/** The forms in which people write configuration: publish directory and base path of each. */
test.each<[string, Record<string, string>, string | null, string | null]>([
  [
    'another file, named by the command',
    {
      'package.json': manifest('vite', 'vite build --config config/vite.prod.ts'),
      'config/vite.prod.ts': "export default { base: '/b/', build: { outDir: 'out' } }",
      'vite.config.ts': "export default { base: '/no/' }",
    },
    'out',
    '/b/',
  ],
  [
    'a common part that is required and spread',
    {
      'package.json': manifest('webpack', 'webpack -c webpack.prod.js'),
      'webpack.common.js': "module.exports = { output: { publicPath: '/b/', path: __dirname + '/out' } }",
      'webpack.prod.js':
        "const common = require('./webpack.common')\nmodule.exports = { ...common, mode: 'production' }",
    },
    'out',
    '/b/',
  ],
  [
    'a common part that is merged',
    {
      'package.json': manifest('webpack', 'webpack --config webpack.prod.js'),
      'webpack.common.js': "module.exports = { output: { publicPath: '/no/', path: __dirname + '/out' } }",
      'webpack.prod.js':
        "const { merge } = require('webpack-merge')\nconst common = require('./webpack.common.js')\nmodule.exports = merge(common, { output: { publicPath: '/b/' } })",
    },
    'out',
    '/b/',
  ],
  [
    'members that are written one by one',
    {
      'package.json': manifest('webpack', 'webpack'),
      'webpack.config.js':
        "const path = require('path')\nconst config = { output: {} }\nconfig.output.path = path.join(__dirname, 'out')\nif (process.env.NODE_ENV === 'production') {\n  Object.assign(config.output, { publicPath: '/b/' })\n} else {\n  config.output.publicPath = '/no/'\n}\nmodule.exports = config",
    },
    'out',
    '/b/',
  ],
  [
    'a function that changes an object by the mode',
    {
      'package.json': manifest('vite', 'vite build'),
      'vite.config.js':
        "export default ({ mode }) => {\n  const config = { base: '/no/', build: { outDir: 'no' } }\n  if (mode === 'production') {\n    config.base = '/b/'\n    config.build.outDir = 'out'\n  }\n  return config\n}",
    },
    'out',
    '/b/',
  ],
  [
    'a name that is given another value later',
    {
      'package.json': manifest('vite', 'vite build'),
      'vite.config.js':
        "let base = '/no/'\nlet outDir\nbase = '/b/'\nmode() && (outDir = 'no')\noutDir = 'out'\nexport default { base, build: { outDir } }\nfunction mode() { return false }",
    },
    'out',
    '/b/',
  ],
  [
    'objects that are written into each other',
    {
      'package.json': manifest('vite', 'vite build'),
      'vite.config.js':
        "const a = { base: '/b/', build: { outDir: 'out' } }\nconst b = { a }\na.b = b\nb.a = a\nexport default a",
    },
    'out',
    '/b/',
  ],
  [
    'sums and lists that double with each line end somewhere',
    {
      'package.json': manifest('vite', 'vite build'),
      'vite.config.js': `const a0 = 'x', b0 = [1]\n${Array.from({ length: 60 }, (_, at) => `const a${at + 1} = a${at} + a${at}, b${at + 1} = [...b${at}, ...b${at}]`).join('\n')}\nexport default { base: '/b/', build: { outDir: a60 }, plugins: b60 }`,
    },
    null,
    '/b/',
  ],
  [
    'names that every object has',
    {
      'package.json':
        '{"name":"s","scripts":{"build":"vite build","constructor":"x","__proto__":"y"},"devDependencies":{"vite":"8","constructor":"1"}}',
      'vite.config.js':
        "export default { base: '/b/', build: { outDir: 'out' }, __proto__: { base: '/no/' }, constructor: 1, toString: 'x' }",
    },
    'out',
    '/b/',
  ],
  [
    'an object of the module that the exported function changes',
    {
      'package.json': manifest('webpack', 'webpack --mode production'),
      'webpack.config.js':
        "const config = { output: { path: __dirname + '/out', publicPath: '/no/' } }\nmodule.exports = (env, argv) => {\n  const base = '/b/'\n  if (env.production) {\n    config.output.publicPath = base\n  }\n  return config\n}",
    },
    'out',
    '/b/',
  ],
  [
    'what another function writes is not known',
    {
      'package.json': manifest('vite', 'vite build'),
      'vite.config.js':
        "const config = { base: '/b/', build: { outDir: 'no' } }\nfunction later() { config.build.outDir = 'out' }\nexport default config",
    },
    null,
    '/b/',
  ],
  [
    'what a loop writes is not known',
    {
      'package.json': manifest('vite', 'vite build'),
      'vite.config.js':
        "const config = { base: '/b/', build: {} }\nfor (const each of list()) config.build.outDir = each\nexport default config",
    },
    null,
    '/b/',
  ],
  [
    'several configurations, of which the first is the site',
    {
      'package.json': manifest('webpack', 'webpack'),
      'webpack.config.js':
        "module.exports = [{ output: { path: __dirname + '/out', publicPath: '/b/' } }, { target: 'node' }]",
    },
    'out',
    '/b/',
  ],
  [
    'a plugin around the configuration',
    {
      'package.json': manifest('next', 'next build'),
      'next.config.js':
        "const withPages = require('pages')({ on: true })\nmodule.exports = withPages({ output: 'export', basePath: '/b' })",
    },
    'out',
    '/b',
  ],
  [
    'a plugin that is set up first, around a constant',
    {
      'package.json': manifest('next', 'next build'),
      'next.config.mjs':
        "import withPages from 'pages'\nconst config = { output: 'export', basePath: '/b' }\nexport default withPages({ on: true })(config)",
    },
    'out',
    '/b',
  ],
  [
    'a function of the project around the configuration',
    {
      'package.json': manifest('next', 'next build'),
      'next.config.mjs':
        "const withBase = (config) => ({ ...config, basePath: '/b' })\nexport default withBase({ output: 'export' })",
    },
    'out',
    '/b',
  ],
  [
    'a function that returns nothing',
    {
      'package.json': manifest('@11ty/eleventy', 'eleventy'),
      '.eleventy.js': "module.exports = function (config) { config.addPassthroughCopy('css') }",
    },
    '_site',
    '/',
  ],
  [
    'a function that returns nothing, and settings beside it',
    {
      'package.json': manifest('@11ty/eleventy', 'eleventy'),
      'eleventy.config.js':
        "export default async function (config) { config.addPlugin(x) }\nexport const config = { dir: { output: 'out' }, pathPrefix: '/b/' }",
    },
    'out',
    '/b/',
  ],
  [
    'a default of a parameter',
    {
      'package.json': manifest('vite', 'vite build'),
      'vite.config.ts':
        "const make = (base = '/b/', { out = 'out' } = {}) => ({ base, build: { outDir: out } })\nexport default make()",
    },
    'out',
    '/b/',
  ],
  [
    'a function of the mode, in a block with a constant',
    {
      'package.json': manifest('vite', 'vite build'),
      'vite.config.ts':
        "export default defineConfig(({ mode, command }) => { const base = mode === 'production' ? '/b/' : '/'; if (command === 'serve') return { base: '/no/' }; return { base, build: { outDir: `out` } } })",
    },
    'out',
    '/b/',
  ],
  [
    'an asynchronous function',
    {
      'package.json': manifest('vite', 'vite build'),
      'vite.config.ts':
        "export default defineConfig(async ({ mode }) => { const { default: plugin } = await import('x'); return { base: '/b/', plugins: [plugin()], build: { outDir: 'out' } } })",
    },
    'out',
    '/b/',
  ],
  [
    'assigned member by member',
    {
      'package.json': manifest('vue-cli', 'vue-cli-service build').replace('vue-cli"', '@vue/cli-service"'),
      'vue.config.js': "exports.publicPath = '/b/'\nexports.outputDir = 'out'",
    },
    'out',
    '/b/',
  ],
])('%s', async (_, files, directory, base) => {
  const found = (await surveyProject(new MemoryFolder(files)))?.survey
  expect([found?.publishDirectory?.value, found?.basePath?.value]).toEqual([directory, base])
})

test('what is written where a variable is set depends on that variable, and is not what nobody sets', async () => {
  const files = {
    'package.json': manifest('vite', 'vite build'),
    'vite.config.js':
      "let base = '/'\nif (process.env.DEPLOYED) base = '/b/'\nexport default { base, build: { outDir: 'out' } }",
  }
  const found = (await surveyProject(new MemoryFolder(files)))?.survey
  expect(found?.basePath).toMatchObject({ value: '/', dependsOn: 'DEPLOYED' })
  expect(found?.publishDirectory).toMatchObject({ value: 'out' })
})
