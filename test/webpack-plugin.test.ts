import { spawn, spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { packagesWith } from './support/packages.ts'

const place = mkdtempSync(join(tmpdir(), 'wardoscope-webpack-'))
const plugin = JSON.stringify(join(process.cwd(), 'dist/webpack/index.js'))
afterAll(() => rmSync(place, { recursive: true, force: true }))

const bundlers = {
  'webpack 5': {
    packages: { webpack: '5.103.0', 'webpack-cli': '6.0.1', 'html-webpack-plugin': '5.6.5' },
    program: 'node_modules/webpack/bin/webpack.js',
    page: "import Html from 'html-webpack-plugin'\nconst html = new Html({ title: 'Skerry Line' })\n",
  },
  Rspack: {
    packages: { '@rspack/core': '1.6.4', '@rspack/cli': '1.6.4' },
    program: 'node_modules/@rspack/cli/bin/rspack.js',
    page: "import { rspack } from '@rspack/core'\nconst html = new rspack.HtmlRspackPlugin({ title: 'Skerry Line' })\n",
  },
} as const
type Bundler = keyof typeof bundlers
const homes = new Map<Bundler, string>()
beforeAll(() => {
  for (const [name, { packages }] of Object.entries(bundlers))
    homes.set(name as Bundler, packagesWith(name.replace(' ', '').toLowerCase(), packages))
}, 300_000)

let made = 0
const at = "{ site: 'https://skerryline.example/crossings/', host: 'fallback', hold: true }"

function project(name: Bundler, options: string, source: string, more = ''): string {
  const root = join(place, `project-${made++}`)
  const kind = name === 'Rspack' ? 'rspack' : 'webpack'
  const files = {
    'package.json': `{"name":"s","type":"module","scripts":{"build":"${kind} build"},"devDependencies":{"${name === 'Rspack' ? '@rspack/core' : 'webpack'}":"*"}}`,
    [`${kind}.config.mjs`]: `import { WardoscopePlugin } from ${plugin}\n${bundlers[name].page}export default { mode: 'production', entry: './src/main.js', output: { publicPath: '/crossings/', clean: true }, plugins: [html, new WardoscopePlugin(${options})], ${more} }\n`,
    'src/main.js': source,
  }
  for (const [path, text] of Object.entries(files)) {
    mkdirSync(dirname(join(root, path)), { recursive: true })
    writeFileSync(join(root, path), text)
  }
  symlinkSync(join(homes.get(name) ?? '', 'node_modules'), join(root, 'node_modules'), 'dir')
  return root
}

const environment = (): NodeJS.ProcessEnv => {
  const { NODE_ENV: _, VITEST: __, FORCE_COLOR: ___, ...plain } = process.env
  return { ...plain, NO_COLOR: '1' }
}

function built(name: Bundler, root: string, ...args: string[]): { status: number | null; out: string } {
  const { status, stdout, stderr } = spawnSync('node', [bundlers[name].program, 'build', ...args], {
    cwd: root,
    encoding: 'utf8',
    env: environment(),
    timeout: 120_000,
  })
  return { status, out: `${stdout}${stderr}` }
}

const sound = 'fetch("https://api.skerryline.example/v1")\n'
const faulty = 'fetch("http://localhost:8787/v1")\n'

describe.each(Object.keys(bundlers) as Bundler[])('%s', (name) => {
  test('a sound build passes, and says so', () => {
    const { status, out } = built(name, project(name, at, sound))
    expect(out).toMatch(/CLEAR {2}https:\/\/skerryline\.example\/crossings\//)
    expect(status).toBe(0)
  })

  test('a held build fails, in full and without a stack', () => {
    const { status, out } = built(name, project(name, at, faulty))
    expect(status).toBe(1)
    expect(out).toMatch(
      /ERROR in[\s\S]*The build is held\.[\s\S]*HELD[\s\S]*endpoint\/loopback[\s\S]*src\/main\.js:1/,
    )
    expect(out).not.toMatch(/^ +at .*:\d+:\d+\)?$/m)
  })

  test('without hold it is a warning in full, and the build passes', () => {
    const { status, out } = built(name, project(name, at.replace('true', 'false'), faulty))
    expect(status).toBe(0)
    expect(out).toMatch(/WARNING in[\s\S]*HELD[\s\S]*endpoint\/loopback/)
  })

  test('the public path that was resolved counts', () => {
    const { status, out } = built(name, project(name, at.replace('/crossings/', '/'), sound))
    expect(status).toBe(1)
    expect(out).toContain('base/wrong-path')
  })

  test('a build for a server prints nothing of it', () => {
    const { status, out } = built(name, project(name, at, faulty, "target: 'node',"))
    expect(status).toBe(0)
    expect(out).not.toMatch(/HELD|CLEAR|wardoscope/)
  })

  test('while it watches, what changed is told, and nothing fails', async () => {
    const root = project(name, at, faulty)
    const child = spawn('node', [bundlers[name].program, 'build', '--watch'], {
      cwd: root,
      env: environment(),
    })
    let out = ''
    const hear = (data: Buffer): void => {
      out += data.toString('utf8')
    }
    child.stdout.on('data', hear)
    child.stderr.on('data', hear)
    const says = async (pattern: RegExp): Promise<void> => {
      for (let turn = 0; turn < 400 && !pattern.test(out); turn++) await sleep(50)
      expect(out).toMatch(pattern)
    }
    await says(/WARNING in[\s\S]*HELD[\s\S]*endpoint\/loopback/)
    writeFileSync(join(root, 'src/main.js'), sound)
    await says(/CLEAR[^\n]*\n\W*(?:<i>)? +1 solved, 0 new, \d left/)
    writeFileSync(join(root, 'src/main.js'), faulty.replace('8787', '9090'))
    await says(/HELD[^\n]*\n\W* +0 solved, 1 new, \d left[\s\S]*localhost:9090/)
    child.kill('SIGKILL')
  }, 60_000)
})
