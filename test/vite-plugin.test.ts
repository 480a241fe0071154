import { spawnSync } from 'node:child_process'
import { cpSync, existsSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { packagesWith } from './support/packages.ts'

const place = mkdtempSync(join(tmpdir(), 'wardoscope-plugin-'))
const plugin = JSON.stringify(join(process.cwd(), 'dist/vite/index.js'))
afterAll(() => rmSync(place, { recursive: true, force: true }))

const versions = { 'vite 6': '6.4.1', 'vite 7': '7.2.4', 'vite 8': '8.3.8' } as const
const homes = new Map<string, string>()
beforeAll(() => {
  for (const [name, version] of Object.entries(versions)) {
    homes.set(name, packagesWith(name.replace(' ', ''), { vite: version }))
  }
  homes.set(
    'sveltekit',
    packagesWith('plugin-sveltekit', {
      vite: '7.2.4',
      '@sveltejs/kit': '2.49.0',
      '@sveltejs/adapter-static': '3.0.10',
      '@sveltejs/vite-plugin-svelte': '6.2.1',
      svelte: '5.44.1',
    }),
  )
})

let made = 0
interface Project {
  readonly packages: string
  readonly files: Readonly<Record<string, string>>
}

/** A project built by the bundler's own command, as people run it. */
function built({ packages, files }: Project, environment: Record<string, string> = {}) {
  const root = join(place, `project-${made++}`)
  for (const [path, text] of Object.entries(files)) {
    cpSync(join(process.cwd(), 'LICENSE'), join(root, path))
    writeFileSync(join(root, path), text)
  }
  symlinkSync(join(homes.get(packages) ?? '', 'node_modules'), join(root, 'node_modules'), 'dir')
  return { root, ...run(root, ['build'], environment) }
}

function run(root: string, args: readonly string[], environment: Record<string, string> = {}) {
  const { NODE_ENV: _, VITEST: __, ...plain } = process.env
  const { status, stdout, stderr } = spawnSync('node', ['node_modules/vite/bin/vite.js', ...args], {
    cwd: root,
    encoding: 'utf8',
    env: { ...plain, NO_COLOR: '1', ...environment },
    timeout: 120_000,
  })
  return { status, out: `${stdout}${stderr}` }
}

const page = '<!doctype html><title>Skerry Line</title><script type="module" src="/src/main.js"></script>'
const config = (options: string, more = ''): string =>
  `import { wardoscope } from ${plugin}\nexport default { base: '/crossings/', plugins: [wardoscope(${options})], ${more} }\n`
const sound = {
  'package.json':
    '{"name":"skerry","type":"module","scripts":{"build":"vite build"},"devDependencies":{"vite":"8"}}',
  'index.html': page,
  'src/main.js':
    'document.title += import.meta.env.VITE_SEASON\nfetch("https://api.skerryline.example/v1")\n',
  '.env.production': 'VITE_SEASON=summer',
}
const at = "{ site: 'https://skerryline.example/crossings/', host: 'fallback', hold: true }"

describe.each(Object.keys(versions))('%s', (packages) => {
  test('a sound build passes, and says so', () => {
    const { status, out } = built({ packages, files: { ...sound, 'vite.config.js': config(at) } })
    expect(out).toMatch(/CLEAR {2}https:\/\/skerryline\.example\/crossings\//)
    expect(status).toBe(0)
  })

  test('a build for another address fails, with what is to be fixed', () => {
    const elsewhere = at.replace('/crossings/', '/')
    const { status, out } = built({ packages, files: { ...sound, 'vite.config.js': config(elsewhere) } })
    expect(status).toBe(1)
    expect(out).toContain('The build is held.')
    expect(out).toContain('base/wrong-path')
    expect(out).toMatch(/In vite\.config\.js, line \d+, write base: '\/',/)
    expect(out).not.toMatch(/^ +at .*:\d+:\d+\)?$/m)
  })

  test('without hold a faulty build is reported and not failed', () => {
    const files = {
      ...sound,
      'src/main.js': 'fetch("http://localhost:8787/v1/sailings")',
      'vite.config.js': config(at.replace('true', 'false')),
    }
    const { status, out } = built({ packages, files })
    expect(status).toBe(0)
    expect(out).toMatch(/HELD[\s\S]*endpoint\/loopback[\s\S]*src\/main\.js:1/)
  })
})

describe('what the bundler resolved counts', () => {
  const packages = 'vite 8'

  test('a base, a folder and a mode that only the command line gives', () => {
    const files = {
      ...sound,
      '.env.staging': 'VITE_SEASON=winter',
      'vite.config.js': config("{ site: 'https://skerryline.example/preview/', host: 'files', hold: true }"),
    }
    const { root } = built({ packages, files })
    const args = ['build', '--base', '/preview/', '--outDir', 'out/site', '--mode', 'staging']
    const { status, out } = run(root, args)
    expect(out).toMatch(/CLEAR[\s\S]*out\/site: \d files/)
    expect(status).toBe(0)
  })

  test('environment files that are elsewhere: their values are known, and never shown', () => {
    const files = {
      ...sound,
      '.env.production': '',
      'settings/.env.production': 'VITE_SEASON=season-of-the-tides\nTIDE_SECRET=tide-secret-9141',
      'src/main.js':
        'document.title = import.meta.env.VITE_SEASON; fetch("https://api.skerryline.example/tide-secret-9141")',
      'vite.config.js': config(at, "envDir: 'settings'"),
    }
    const { out, status } = built({ packages, files })
    expect(out).toMatch(/env\/private-value[\s\S]*settings\/\.env\.production:2/)
    expect(out).not.toMatch(/season-of-the-tides|tide-secret/)
    expect(status).toBe(1)
  })

  test('two outputs, each with its pages, are two results', () => {
    const outputs = "build: { rollupOptions: { output: [{ dir: 'dist/a' }, { dir: 'dist/b' }] } }"
    const files = { ...sound, 'vite.config.js': config(at.replace('true', 'false'), outputs) }
    const { out } = built({ packages, files })
    expect(out).toMatch(/dist\/a: \d files/)
    expect(out).toMatch(/dist\/b: \d files/)
  })

  test('what the configuration file says is heeded, and what the plugin is given wins', () => {
    const files = {
      ...sound,
      'wardoscope.config.json':
        '{ "site": "https://skerryline.example/crossings/", "host": "fallback", "routes": ["/tickets"] }',
      'vite.config.js': config('{ hold: true }'),
    }
    expect(built({ packages, files }).out).toMatch(/CLEAR {2}https:\/\/skerryline\.example[\s\S]*2 routes/)
    const wrong = { ...files, 'wardoscope.config.json': '{ "sight": "" }' }
    const { out, status } = built({ packages, files: wrong })
    expect(out).toContain(
      'wardoscope: The configuration wardoscope.config.json has a key "sight" that is not known.',
    )
    expect(status).toBe(0)
  })
})

describe('where there is nothing to look at', () => {
  test('a library and a build for a server print nothing of it', () => {
    const library = "build: { lib: { entry: 'src/main.js', formats: ['es'] } }"
    const server = "build: { ssr: 'src/main.js' }"
    for (const more of [library, server]) {
      const { status, out } = built({
        packages: 'vite 8',
        files: { ...sound, 'vite.config.js': config(at, more) },
      })
      expect(status).toBe(0)
      expect(out).not.toMatch(/CLEAR|HELD/)
    }
  })

  test('the development server does not know it', async () => {
    const { createServer } = await import('vite')
    const { wardoscope } = await import('../src/vite/index.ts')
    const root = join(place, 'serve')
    cpSync(join(process.cwd(), 'LICENSE'), join(root, 'LICENSE'))
    writeFileSync(join(root, 'index.html'), page)
    const server = await createServer({
      root,
      configFile: false,
      logLevel: 'silent',
      plugins: [wardoscope()],
    })
    expect(server.config.plugins.some(({ name }) => name === 'wardoscope')).toBe(false)
    await server.close()
  })
})

describe('a framework that runs the bundler inside', () => {
  const files = (base: string): Record<string, string> => ({
    'package.json':
      '{"name":"skerry","type":"module","scripts":{"build":"vite build"},"devDependencies":{"@sveltejs/kit":"2","vite":"7"}}',
    'svelte.config.js': `import adapter from '@sveltejs/adapter-static'\nexport default { kit: { adapter: adapter(), paths: { base: '${base}', relative: false } } }\n`,
    'vite.config.js': `import { sveltekit } from '@sveltejs/kit/vite'\nimport { wardoscope } from ${plugin}\nexport default { plugins: [sveltekit(), wardoscope(${at})] }\n`,
    'src/app.html': '<!doctype html><head>%sveltekit.head%</head><body>%sveltekit.body%</body>',
    'src/routes/+layout.js': 'export const prerender = true',
    'src/routes/+page.svelte': '<h1>Skerry Line</h1>',
  })

  test('its pages are looked at when it has written them', () => {
    const { status, out, root } = built({ packages: 'sveltekit', files: files('/crossings') })
    expect(existsSync(join(root, 'build/index.html')), out).toBe(true)
    expect(out).toMatch(/CLEAR[\s\S]*build: \d+ files/)
    expect(status).toBe(0)
    expect(out.match(/CLEAR/g)).toHaveLength(1)
  })

  test('and hold its build', () => {
    const { status, out } = built({ packages: 'sveltekit', files: files('') })
    expect(out).toMatch(/HELD[\s\S]*base\/wrong-path/)
    expect(status).toBe(1)
  })
})
