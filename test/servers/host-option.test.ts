import { join } from 'node:path'
import { expect, test } from 'vitest'
import { wardoscope } from '../support/cli.ts'
import { folderWith } from '../support/folders.ts'

const page = (inner: string): string => `<!doctype html><title>Skerry Line</title>${inner}`
const at = ['--site', 'https://skerryline.example/', '--route', '/harbours', '--no-cache']
const home = (): string =>
  folderWith({
    'dist/index.html': page('<script src="/app.js"></script>'),
    'dist/app.js': 'document.title = "Skerry Line"',
    'server/site.conf': 'server {\n    root /srv/site;\n    include snippets/pages.conf;\n}\n',
    'server/snippets/pages.conf': 'location / {\n    try_files $uri $uri/ /index.html;\n}\n',
    'server/bare.conf': 'server { root /srv/site; }\n',
    'server/httpd.conf':
      '<VirtualHost *:443>\nDocumentRoot /srv/site\nFallbackResource /index.html\n</VirtualHost>\n',
    'server/broken.conf': 'server {\n    root /srv/site\n}\n',
  })

test('a configuration is named by its path, with what it includes beside it', () => {
  const folder = home()
  const checked = (file: string) =>
    wardoscope([join(folder, 'dist'), '--host', join(folder, 'server', file), ...at])
  expect(checked('site.conf')).toMatchObject({ status: 0, out: expect.stringMatching(/^CLEAR/) })
  expect(checked('httpd.conf')).toMatchObject({ status: 0, out: expect.stringMatching(/^CLEAR/) })
  const bare = checked('bare.conf')
  expect(bare.status).toBe(1)
  expect(bare.out).toMatch(/with 404:\s+there/)
  const broken = checked('broken.conf')
  expect(broken.out).toContain('"root" is not ended by ";"')
})

test('a rehearsal plays it', () => {
  const folder = home()
  const { status, out } = wardoscope([
    'rehearse',
    join(folder, 'dist'),
    '--host',
    join(folder, 'server/site.conf'),
    ...at,
  ])
  expect(out).toContain('2 routes opened')
  expect(status).toBe(0)
})

test.each([
  ['a file that is not there', 'gone.conf', /The host file .*gone\.conf could not be read/],
  ['a directory', 'server', /The host file .*server could not be read/],
])('%s is said in one sentence', (_, name, message) => {
  const folder = home()
  const { status, err } = wardoscope([join(folder, 'dist'), '--host', join(folder, name), ...at])
  expect(status).toBe(2)
  expect(err).toMatch(message)
  expect(err).not.toMatch(/^\s+at /m)
})
