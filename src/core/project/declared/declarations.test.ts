import { describe, expect, test } from 'vitest'
import { MemoryFolder } from '../../model/memory-folder.ts'
import { declarationsIn } from './declarations.ts'
import { readDeployFiles } from './deploy-files.ts'
import { plainVariables } from './deploy-variables.ts'

const read = (files: Readonly<Record<string, string>>): ReturnType<typeof readDeployFiles> =>
  readDeployFiles(new MemoryFolder(files))

const inWords = async (files: Readonly<Record<string, string>>): Promise<string[]> =>
  declarationsIn(await read(files)).map(
    ({ value, place: { file, line }, perhaps }) => `${value} ${file}:${line}${perhaps ? ' perhaps' : ''}`,
  )

describe('a container of files', () => {
  const build = 'FROM node:22 AS build\nWORKDIR /app\nCOPY . .\nRUN npm run build\n'
  test.each<[string, string, string[]]>([
    [
      'copies the build',
      'FROM nginx\nCOPY --from=build /app/dist /usr/share/nginx/html',
      ['dist Dockerfile:6'],
    ],
    [
      'of a project below',
      'FROM nginx\nCOPY --from=build /app/apps/web/dist/ /var/www/html/',
      ['apps/web/dist Dockerfile:6'],
    ],
    [
      'by the number of its stage',
      'FROM httpd\nCOPY --from=0 /app/out /usr/local/apache2/htdocs',
      ['out Dockerfile:6'],
    ],
    [
      'over two lines',
      'FROM nginx\nCOPY --from=build \\\n  /app/dist \\\n  /usr/share/nginx/html',
      ['dist Dockerfile:6'],
    ],
    ['as a list', 'FROM nginx\nCOPY --from=build ["/app/dist", "/srv"]', ['dist Dockerfile:6']],
    [
      'into its working directory',
      'FROM nginx\nWORKDIR /usr/share/nginx/html\nCOPY --from=build /app/dist .',
      ['dist Dockerfile:7'],
    ],
    ['a configuration', 'FROM nginx\nCOPY nginx.conf /etc/nginx/conf.d/site.conf', []],
    [
      'a configuration to where files are served',
      'FROM nginx\nCOPY --from=build /app/robots.txt /var/www/html/',
      [],
    ],
    ['into a program that serves itself', 'FROM node:22\nCOPY --from=build /app/public /site/public', []],
    ['from an image of others', 'FROM nginx\nCOPY --from=others/tool:1 /app/dist /var/www', []],
    ['from elsewhere in its stage', 'FROM nginx\nCOPY --from=build /opt/tool/dist /var/www', []],
    ['by a variable', 'ARG OUT\nFROM nginx\nCOPY --from=build /app/$OUT /var/www', []],
  ])('%s', async (_, last, expected) => {
    expect(await inWords({ Dockerfile: build + last })).toEqual(expected)
  })
  test('of what was built beside it', async () => {
    expect(await inWords({ Containerfile: 'FROM nginx\nCOPY dist/ /usr/share/nginx/html' })).toEqual([
      'dist Containerfile:2',
    ])
  })
})

describe('commands that send a directory away', () => {
  const step = (run: string, more = ''): Record<string, string> => ({
    '.pipelines/site.yml': `steps:\n  - run: ${run}\n${more}`,
  })
  test.each<[string, Record<string, string>, string[]]>([
    [
      'to another machine',
      step('rsync -az --delete dist/ deploy@www.skerryline.example:/var/www/'),
      ['dist .pipelines/site.yml:2 perhaps'],
    ],
    [
      'to a store',
      step('store sync ./build store://skerry-site --delete'),
      ['build .pipelines/site.yml:2 perhaps'],
    ],
    [
      'to where a server sends from',
      step('sudo -u www true && cp -r out/* /var/www/html'),
      ['out .pipelines/site.yml:2 perhaps'],
    ],
    [
      'from a directory below',
      step('cp -r dist/. /srv/site', '    working-directory: apps/web\n'),
      ['apps/web/dist .pipelines/site.yml:2 perhaps'],
    ],
    [
      'after going there',
      step('cd web && scp -r dist www.skerryline.example:site'),
      ['web/dist .pipelines/site.yml:2 perhaps'],
    ],
    ['within the project', step('cp -r public dist'), []],
    ['of another name', step('rsync -a fixtures/ www.skerryline.example:x'), []],
    [
      'in a script of the shell',
      { 'scripts/ship.sh': '#!/bin/sh\n# the site\nrsync -a dist/ www.skerryline.example:x' },
      ['dist scripts/ship.sh:3 perhaps'],
    ],
  ])('%s', async (_, files, expected) => {
    expect(await inWords(files)).toEqual(expected)
  })
})

test.each<[string, string, string[]]>([
  [
    'a step that uploads',
    'steps:\n  - uses: x/upload\n    with:\n      path: dist',
    ['dist site.yml:4 perhaps'],
  ],
  [
    'several paths',
    'steps:\n  - with:\n      path: |\n        dist\n        coverage',
    ['dist site.yml:3 perhaps'],
  ],
  [
    'what is kept of a run',
    'build:\n  artifacts:\n    paths:\n      - public',
    ['public site.yml:4 perhaps'],
  ],
  ['patterns', 'artifacts:\n  - out/**', ['out site.yml:2 perhaps']],
  ['what else is kept', 'artifacts:\n  paths: [coverage, test-results]', []],
])('uploads of a pipeline: %s', async (_, text, expected) => {
  expect(await inWords({ 'site.yml': text })).toEqual(expected)
})

test('values that files give plainly and all alike', async () => {
  const files = {
    'site.yml':
      'a:\n  env:\n    SITE_BASE: /b/\n    API: one\n    TOKEN: ${{ secrets.TOKEN }}\nb:\n  env:\n    API: two\n    PORT: 80',
    Dockerfile: 'FROM x\nARG NAMED\nARG MODE=plain\nENV SITE_BASE="/b/"',
  }
  const values = [...plainVariables(await read(files))].map(([name, { value }]) => [name, value])
  expect(values).toEqual([
    ['SITE_BASE', '/b/'],
    ['PORT', '80'],
    ['MODE', 'plain'],
  ])
})
