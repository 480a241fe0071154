import { describe, expect, test } from 'vitest'
import { validateXML } from 'xmllint-wasm'
import { presetNamed } from '../../host/presets.ts'
import { MemoryFolder } from '../../model/memory-folder.ts'
import type { Report } from '../../model/report.ts'
import { parseSite } from '../../model/site.ts'
import { check } from '../../pipeline/check.ts'
import { chainsOf } from './chains.ts'
import { mapOf } from './draw.ts'
import { answeredOf, type RouteNode, routesTree } from './routes-tree.ts'

const page = (more = ''): string => `<!doctype html><title>x</title>${more}`

function reportOf(
  files: Readonly<Record<string, string>>,
  routes: readonly string[] = [],
  host = 'files',
): Promise<Report> {
  return check(new MemoryFolder(files), {
    site: parseSite('https://skerryline.example/b/'),
    host: presetNamed(host),
    routes,
  })
}

async function isWellFormed(svg: string): Promise<boolean> {
  const { valid } = await validateXML({ xml: [{ fileName: 'map.svg', contents: svg }], schema: [] })
  return valid
}

/** How many routes a tree stands for, those that are only counted among them. */
const countOf = ({ route, alike, children }: RouteNode): number =>
  (alike > 0 ? alike : route ? 1 : 0) + children.reduce((sum, each) => sum + countOf(each), 0)

describe('the tree of routes', () => {
  test('every route is drawn or counted, those that fail are never hidden behind those that do not', async () => {
    const pages = Array.from({ length: 500 }, (_, i) => [`log/${i % 3}/entry-${i}/index.html`, page()])
    const gone = Array.from({ length: 9 }, (_, i) => `/b/log/1/gone-${i}`)
    const { routes } = await reportOf({ 'index.html': page(), ...Object.fromEntries(pages) }, gone)
    expect(routes).toHaveLength(510)
    const tree = routesTree(routes, '/b/')
    expect(countOf(tree)).toBe(510)
    const drawn: RouteNode[] = []
    const walk = (node: RouteNode): void => {
      drawn.push(node)
      node.children.forEach(walk)
    }
    walk(tree)
    expect(drawn.length).toBeLessThan(40)
    const failing = drawn.filter(({ route }) => route && answeredOf(route) === 'failing')
    expect(failing.filter(({ alike }) => alike === 0).map(({ step }) => step)).toEqual([
      'gone-0',
      'gone-1',
      'gone-2',
      'gone-3',
    ])
    expect(failing.find(({ alike }) => alike > 0)?.alike).toBe(5)
  })

  test.each([
    ['files', '/b/x', 'failing'],
    ['fallback', '/b/x', 'fallback'],
    ['files', '/b/about/', 'file'],
    ['files', '/b/about', 'redirect'],
  ])('on the host %s, %s is answered by %s', async (host, path, answered) => {
    const report = await reportOf({ 'index.html': page(), 'about/index.html': page() }, [path], host)
    const route = report.routes.find((each) => each.path === path)
    expect(route && answeredOf(route)).toBe(answered)
  })
})

describe('chains', () => {
  test('lead from what fails to the page that asks, the source and what to write', async () => {
    const report = await reportOf({
      'package.json': '{"scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
      'vite.config.js': "export default { base: '/old/' }",
      'dist/index.html': page('<script src="/old/a.js"></script>'),
      'dist/a.js': '',
    })
    const { chains, left } = chainsOf(report)
    expect(left).toBe(0)
    expect(chains[0]?.code).toBe('base/wrong-path')
    expect(chains[0]?.links.map(({ kind, text }) => [kind, text])).toEqual([
      ['request', 'https://skerryline.example/old/a.js'],
      ['build', 'index.html:1:45'],
      ['source', 'vite.config.js:1'],
      ['fix', "export default { base: '/b/' }"],
    ])
  })

  test('more causes than are drawn are counted', async () => {
    const links = Array.from({ length: 20 }, (_, i) => `<a href="/b/gone-${i}/">x</a>`).join('')
    const { chains, left } = chainsOf(await reportOf({ 'index.html': page(links) }))
    expect([chains.length, left]).toEqual([8, 12])
  })
})

describe('the picture', () => {
  test('is well-formed and says in words what it shows', async () => {
    const svg = mapOf(await reportOf({ 'index.html': page('<script src="/b/gone.js"></script>') }, ['/b/x']))
    expect(await isWellFormed(svg)).toBe(true)
    expect(svg).toContain('<title>Held: https://skerryline.example/b/. 2 routes, 2 findings.</title>')
    expect(svg).toContain('asset/missing')
    expect(svg).toContain('prefers-color-scheme:dark')
  })

  test('names that would be markup, or no text at all, are text', async () => {
    const hostile = '"><script>alert(1)</script>&\u0007\u202e]]>'
    const svg = mapOf(
      await reportOf({ 'index.html': page(`<img src="/b/${hostile.replaceAll('"', '&quot;')}">`) }, [
        `/b/${hostile}`,
      ]),
    )
    expect(await isWellFormed(svg)).toBe(true)
    expect(svg).not.toContain('<script>')
  })

  test('a site without a route has a picture too', async () => {
    const svg = mapOf(await reportOf({ 'a.js': '' }))
    expect(await isWellFormed(svg)).toBe(true)
  })
})
