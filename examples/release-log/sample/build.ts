import { createHash } from 'node:crypto'
import type { SampleRelease } from './releases.ts'

/** Where the two sites are served. */
export const addresses = {
  crossings: 'https://skerryline.example/crossings/',
  'harbour-board': 'https://board.skerryline.example/',
} as const

const words =
  'ferry harbour tide crossing sailing berth deck gale fog ticket fare bicycle cargo pier island lantern rope winch timetable wake'.split(
    ' ',
  )

/** The project of a release with its build, as files by their paths. */
export function buildOf(release: SampleRelease): Record<string, string> {
  const { project, pages, fault } = release
  const base = new URL(addresses[project]).pathname
  const built = fault === 'wrong base' ? '/preview/' : base
  const files: Record<string, string> = {
    'package.json': JSON.stringify({
      name: project,
      type: 'module',
      scripts: { build: 'vite build' },
      devDependencies: { vite: '8.0.0' },
    }),
    'vite.config.js': `export default {\n  base: '${built}',\n}\n`,
    'src/main.js': `export const service = '${serviceOf(release)}'\n`,
  }
  const shared = named('shared', 'js', `export const t=${prose(release.shared, 1)}`)
  const style = named('site', 'css', `body{margin:0}/* ${prose(Math.round(release.shared / 40), 2)} */`)
  for (const { path, text } of [shared, style]) files[`dist/${path}`] = text
  for (const [name, count] of Object.entries(pages)) {
    const own = named(
      name || 'index',
      'js',
      `import{t}from"./${shared.path.slice('assets/'.length)}";fetch("${serviceOf(release)}/v1/${name || 'list'}").then(r=>r.json());console.log(t,${prose(count, 3)})`,
    )
    files[`dist/${own.path}`] =
      fault === 'maps'
        ? `${own.text}\n//# sourceMappingURL=${own.path.slice('assets/'.length)}.map`
        : own.text
    if (fault === 'maps') files[`dist/${own.path}.map`] = mapOf(name || 'index')
    files[name === '' ? 'dist/index.html' : `dist/${name}/index.html`] = pageOf(release, built, [
      `<link rel="stylesheet" href="${built}${style.path}">`,
      `<script type="module" src="${built}${own.path}"></script>`,
    ])
  }
  if (fault === 'backup') files['dist/timetable.html.bak'] = '<p>Winter timetable, draft</p>'
  return files
}

function serviceOf({ fault }: SampleRelease): string {
  return fault === 'localhost' ? 'http://localhost:8787' : 'https://api.skerryline.example'
}

function pageOf({ project, pages, fault }: SampleRelease, base: string, head: readonly string[]): string {
  const links = Object.keys(pages).map(
    (name) => `<a href="${base}${name === '' ? '' : `${name}/`}">${name || 'Home'}</a>`,
  )
  const broken = fault === 'broken link' ? `<a href="${base}timetable/winter/">Winter</a>` : ''
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${project}</title><link rel="icon" href="data:,">${head.join('')}</head><body>${links.join('')}${broken}</body></html>`
}

function mapOf(name: string): string {
  return JSON.stringify({
    version: 3,
    sources: [`src/${name}.js`],
    sourcesContent: ['// fares'],
    mappings: '',
  })
}

/** A file that is named by what it holds, as bundlers do. */
function named(stem: string, ending: string, text: string): { path: string; text: string } {
  const hash = createHash('sha256').update(text).digest('hex').slice(0, 8)
  return { path: `assets/${stem}-${hash}.${ending}`, text }
}

/** A list of so many made-up words: the same every time. */
function prose(count: number, seed: number): string {
  let state = seed * 7_919
  const next = (): number => {
    state = (state * 1_103_515_245 + 12_345) % 2_147_483_648
    return state
  }
  return JSON.stringify(
    Array.from({ length: count }, () => `${words[next() % words.length]} ${next() % 997}`).join(' '),
  )
}
