import { expect, test } from 'vitest'
import { MemoryFolder } from '../model/memory-folder.ts'
import { surveyProject } from '../project/survey-project.ts'

const settings = `module.exports = function (environment) {
  const ENV = { rootURL: '/', locationType: 'history', APP: { api: 'http://localhost:8787' } }
  if (environment === 'development') ENV.APP.api = 'http://127.0.0.1:1'
  if (environment === 'production') {
    ENV.rootURL = '/b/'
    ENV.APP.api = process.env.API
  }
  return ENV
}`

test.each([
  [
    'its own builder, whose root is the base path',
    {
      scripts: { build: 'ember build --environment=production -o site' },
      devDependencies: { 'ember-cli': '5' },
    },
    {},
    ['ember', 'site', '/b/', undefined],
  ],
  [
    'Vite, where the root is of the router alone',
    {
      scripts: { build: 'vite build' },
      devDependencies: { 'ember-cli': '7', 'ember-source': '7', '@embroider/vite': '1', vite: '8' },
    },
    { 'vite.config.mjs': "export default { base: '/files/', build: { outDir: 'site' } }" },
    ['ember-vite', 'site', '/files/', '/b/'],
  ],
])('Ember with %s', async (_, manifest, files, expected) => {
  const folder = new MemoryFolder({
    'package.json': JSON.stringify({ name: 's', ...manifest }),
    'config/environment.js': settings,
    ...files,
  })
  const { survey } = (await surveyProject(folder)) ?? {}
  expect([
    survey?.framework?.value,
    survey?.publishDirectory?.value,
    survey?.basePath?.value,
    survey?.routerBase?.base.value,
  ]).toEqual(expected)
  // The variable that the build was given is not known, so development's value is not taken for it.
  expect(survey?.configured.map(({ name, value }) => [name, value])).toEqual([['API', null]])
})
