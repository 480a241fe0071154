import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs'
import { dirname, join, normalize } from 'node:path'
import { expect, test } from 'vitest'
import { wardoscope } from './support/cli.ts'

/** Pages that people wrote; those below are generated from the code. */
const generated = /^docs\/(?:api|findings)\//

function pages(): string[] {
  const below = readdirSync('docs', { recursive: true, encoding: 'utf8' })
    .map((path) => `docs/${path}`)
    .filter((path) => path.endsWith('.md') && !generated.test(path))
  return ['README.md', 'CONTRIBUTING.md', 'SECURITY.md', ...below].sort()
}

interface Link {
  readonly path: string
  readonly anchor: string
}

/** The links of a page to files of the repository. */
function linksOf(page: string): Link[] {
  const text = readFileSync(page, 'utf8').replace(/```[\s\S]*?```/g, '')
  return [...text.matchAll(/\]\(([^)\s]+)\)/g)].flatMap(([, target = '']) => {
    if (/^[a-z]+:/.test(target)) return []
    const [path = '', anchor = ''] = target.split('#')
    return [{ path: path === '' ? page : normalize(join(dirname(page), path)), anchor }]
  })
}

/** The anchors of a page: its headings, as they are named where Markdown is shown. */
function anchorsOf(page: string): Set<string> {
  const headings = readFileSync(page, 'utf8')
    .replace(/```[\s\S]*?```/g, '')
    .matchAll(/^#+ (.*)$/gm)
  return new Set(
    [...headings].map(([, heading = '']) =>
      heading
        .toLowerCase()
        .replace(/[^\p{L}\p{N} _-]/gu, '')
        .replaceAll(' ', '-'),
    ),
  )
}

test.each(pages())('every link of %s leads to a file, and to a heading in it', (page) => {
  for (const { path, anchor } of linksOf(page)) {
    expect(existsSync(path), `${page} links to ${path}`).toBe(true)
    if (anchor !== '' && path.endsWith('.md'))
      expect(anchorsOf(path), `${page} links to ${path}#${anchor}`).toContain(anchor)
  }
})

test('every page is two clicks from the README, and every picture one', () => {
  const first = new Set(linksOf('README.md').map(({ path }) => path))
  const second = new Set(
    [...first]
      .filter((path) => path.endsWith('.md'))
      .flatMap((page) => linksOf(page).map(({ path }) => path)),
  )
  for (const page of pages()) if (page !== 'README.md') expect([...first, ...second]).toContain(page)
  const pictures = readdirSync('docs/screenshots').map((name) => `docs/screenshots/${name}`)
  for (const picture of pictures) expect([...first]).toContain(picture)
  expect(pictures.length).toBeLessThan(20)
})

test('every command is in the table of the README, and every option of check on its page', () => {
  const readme = readFileSync('README.md', 'utf8')
  const help = wardoscope(['--help']).out
  const commands = [...help.matchAll(/^ {2}([a-z]+)(?: \[options\])?(?: [[<]|\s{2})/gm)].map(
    ([, name = '']) => name,
  )
  expect(commands.length).toBeGreaterThan(8)
  for (const name of commands)
    if (name !== 'help') expect(readme).toMatch(new RegExp(`\`[^\`|]*\\b${name}\\b`))
  const page = readFileSync('docs/commands.md', 'utf8')
  const options = [...wardoscope(['check', '--help']).out.matchAll(/^ {2}(?:-\w, )?(--[\w-]+)/gm)].map(
    ([, name = '']) => name,
  )
  expect(options.length).toBeGreaterThan(20)
  for (const name of options) if (name !== '--help') expect(page).toContain(`\`${name}`)
})

test('what stands before the table of commands is one screen', () => {
  const lines = readFileSync('README.md', 'utf8').split('## Commands')[0]?.split('\n').length ?? 0
  expect(lines).toBeLessThan(40)
  expect(statSync('docs/screenshots/check-held.png').size).toBeGreaterThan(10_000)
})
