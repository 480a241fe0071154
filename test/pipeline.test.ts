import { execFileSync, spawn, spawnSync } from 'node:child_process'
import {
  chmodSync,
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'

const place = mkdtempSync(join(tmpdir(), 'wardoscope-pipeline-'))
const sources = join(place, 'sources')
const tools = join(place, 'tools')
/** Somebody who may read the sources and write none of them: for root, file modes are no bar. */
const stranger = process.getuid?.() === 0 ? { uid: 65_534, gid: 65_534 } : {}

beforeAll(() => {
  chmodSync(place, 0o755)
  mkdirSync(tools)
  const bin = join(process.cwd(), 'dist/cli/bin.cjs')
  writeFileSync(join(tools, 'wardoscope'), `#!/bin/sh\nexec node ${JSON.stringify(bin)} "$@"\n`, {
    mode: 0o755,
  })
  const git = (...args: readonly string[]): void => {
    execFileSync('git', ['-c', 'user.name=Skerry', '-c', 'user.email=desk@skerryline.example', ...args], {
      stdio: 'ignore',
    })
  }
  const origin = join(place, 'origin')
  cpSync('examples/pipeline', origin, {
    recursive: true,
    filter: (path) => !/node_modules|dist$|artefacts$/.test(path),
  })
  git('-C', origin, 'init')
  git('-C', origin, 'add', '-A')
  git('-C', origin, 'commit', '-m', 'Notices')
  git('clone', origin, sources)
  symlinkSync(join(process.cwd(), 'node_modules'), join(sources, 'node_modules'), 'dir')
})
afterAll(() => rmSync(place, { recursive: true, force: true }))

/** Runs the script as a pipeline does: no terminal, a home of its own, and sources it may not write. */
function ship(name: string, environment: Record<string, string> = {}) {
  const out = join(place, name)
  for (const directory of [out, join(out, 'home'), join(out, 'artefacts')]) {
    mkdirSync(directory, { recursive: true })
    chmodSync(directory, 0o777)
  }
  if (!('uid' in stranger)) execFileSync('chmod', ['-R', 'a-w', sources])
  const { NODE_ENV: _, VITEST: __, ...plain } = process.env
  const ran = spawnSync('sh', ['ship.sh'], {
    cwd: sources,
    encoding: 'utf8',
    ...stranger,
    env: {
      ...plain,
      CI: 'true',
      HOME: join(out, 'home'),
      XDG_CACHE_HOME: join(out, 'home/cache'),
      npm_config_cache: join(out, 'home/npm'),
      PATH: `${tools}:${plain.PATH}`,
      ARTEFACTS: join(out, 'artefacts'),
      SITE_DIR: join(out, 'site'),
      ...environment,
    },
  })
  const artefact = (file: string): string => readFileSync(join(out, 'artefacts', file), 'utf8')
  return { ...ran, artefact, out }
}

describe('the script of the example', () => {
  test('a sound release is shipped, with its results beside it', () => {
    const { status, stdout, stderr, artefact, out } = ship('first')
    expect(stderr).not.toMatch(/denied|EACCES/)
    expect(stdout).toMatch(/CLEAR {2}https:\/\/skerryline\.example\/notices\//)
    expect(status).toBe(0)
    expect(JSON.parse(artefact('findings.sarif')).version).toBe('2.1.0')
    expect(artefact('comment.md')).toMatch(/^## .*clear/i)
    expect(artefact('report.html')).toMatch(/^<!doctype html>/)
    expect(JSON.parse(artefact('release.json')).schema).toBe('wardoscope-record/1')
    expect(existsSync(join(out, 'artefacts/changes.txt'))).toBe(false)
    expect(stdout.slice(stdout.indexOf('CLEAR'))).not.toContain('\u001b[')
  })

  test('the next one is compared with it, and what to purge is kept for the step that does', () => {
    const last = join(place, 'first/artefacts/release.json')
    const file = join(sources, 'src/notices.js')
    const before = readFileSync(file, 'utf8')
    chmodSync(file, 0o644)
    writeFileSync(file, before.replace('pier two', 'pier three'))
    const { status, artefact } = ship('second', { LAST_RELEASE: last })
    expect(status).toBe(0)
    expect(artefact('changes.txt')).toMatch(/1 changed, [12] under a new hash[\s\S]*delivery\/chunks-gone/)
    expect(artefact('purge.txt')).toBe('/notices/\n/notices/index.html\n')
  })

  test('a faulty one is held, and its results are kept all the same', () => {
    const { status, stdout, artefact } = ship('third', {
      LAST_RELEASE: '',
      SITE_DIR: join(place, 'third/site'),
    })
    expect(status).toBe(0)
    expect(stdout).toContain('CLEAR')
    const file = join(sources, 'src/notices.js')
    chmodSync(file, 0o644)
    writeFileSync(file, 'export const notices = []\nfetch("http://localhost:8787/notices")\n')
    const held = ship('fourth')
    expect(held.status).toBe(1)
    expect(held.stdout).toMatch(/HELD[\s\S]*endpoint\/loopback/)
    expect(held.artefact('comment.md')).toContain('endpoint/loopback')
    expect(JSON.parse(held.artefact('findings.sarif')).runs[0].results[0].ruleId).toBe('endpoint/loopback')
    expect(JSON.parse(held.artefact('release.json')).verdict).toBe('held')
    expect(artefact('comment.md')).not.toContain('endpoint/loopback')
  })

  test('a change in review has its own findings first, and a line for each', () => {
    const git = (...args: readonly string[]): void => {
      execFileSync('git', ['-c', 'safe.directory=*', '-C', sources, ...args], { stdio: 'ignore' })
    }
    const file = join(sources, 'src/notices.js')
    git('checkout', '--', 'src/notices.js')
    chmodSync(file, 0o644)
    writeFileSync(file, `${readFileSync(file, 'utf8')}fetch("http://localhost:8787/notices")\n`)
    const { status, stdout, artefact } = ship('reviewed', { BRANCH: 'HEAD' })
    expect(status).toBe(1)
    expect(stdout).toContain('Changed since HEAD: 1 finding comes from it')
    expect(artefact('lines.txt')).toMatch(/^src\/notices\.js:\d+:\d+: error: .* \[endpoint\/loopback\]$/m)
    git('checkout', '--', 'src/notices.js')
  })

  test('what the pipeline file runs and keeps is what the script takes and writes', () => {
    const file = readFileSync('examples/pipeline/pipeline.yml', 'utf8')
    const script = readFileSync('examples/pipeline/ship.sh', 'utf8')
    const arrive = readFileSync('examples/pipeline/arrive.sh', 'utf8')
    expect(file).toContain('sh ship.sh')
    expect(file).toContain('sh arrive.sh')
    for (const name of ['ARTEFACTS', 'SITE_DIR', 'LAST_RELEASE']) {
      expect(file).toContain(`${name}:`)
      for (const text of [script, arrive]) expect(text).toContain(`"\${${name}:=`)
    }
    for (const kept of ['comment.md', 'findings.sarif']) {
      expect(file).toContain(`out/artefacts/${kept}`)
      expect(script).toContain(`$ARTEFACTS/${kept}`)
    }
  })
})

/** A host of our own with a cache in front of it: what it answered once it answers until it is told to forget. */
async function host(root: string): Promise<{ origin: string; close: () => void; asked: string[] }> {
  const kept = new Map<string, { status: number; body: Buffer; type: string }>()
  const asked: string[] = []
  const types: Readonly<Record<string, string>> = {
    html: 'text/html',
    js: 'text/javascript',
    css: 'text/css',
  }
  const server = createServer((request, response) => {
    const path = new URL(request.url ?? '/', 'http://host').pathname
    if (request.method === 'PURGE') {
      asked.push(path)
      kept.delete(path)
      response.end()
      return
    }
    let answer = kept.get(path)
    if (!answer) {
      const file = join(root, path.replace('/notices/', '/'), path.endsWith('/') ? 'index.html' : '')
      const isThere = existsSync(file) && statSync(file).isFile()
      answer = {
        status: isThere ? 200 : 404,
        body: isThere ? readFileSync(file) : Buffer.from('not found'),
        type: types[file.split('.').at(-1) ?? ''] ?? 'application/octet-stream',
      }
      kept.set(path, answer)
    }
    response.writeHead(answer.status, { 'content-type': answer.type, 'cache-control': 'max-age=0' })
    response.end(answer.body)
  })
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  const { port } = server.address() as AddressInfo
  return { origin: `http://127.0.0.1:${port}`, close: () => server.close(), asked }
}

/** Runs the second script without stopping the host of this process. */
function arrive(
  name: string,
  environment: Record<string, string>,
): Promise<{ status: number | null; out: string }> {
  const out = join(place, name)
  const child = spawn('sh', ['arrive.sh'], {
    cwd: sources,
    env: {
      ...process.env,
      HOME: join(out, 'home'),
      PATH: `${tools}:${process.env.PATH}`,
      ARTEFACTS: join(out, 'artefacts'),
      SITE_DIR: join(out, 'site'),
      WAIT: '20',
      ...environment,
    },
  })
  let said = ''
  child.stdout.on('data', (data: Buffer) => {
    said += data.toString('utf8')
  })
  child.stderr.on('data', (data: Buffer) => {
    said += data.toString('utf8')
  })
  return new Promise((resolve) => child.on('exit', (status) => resolve({ status, out: said })))
}

test('from one build to the next: shipped, purged and arrived; without the purge the old page is told', async () => {
  const target = join(place, 'served')
  const { origin, close, asked } = await host(target)
  const at = { TARGET: target, INSTEAD: `https://skerryline.example=${origin}` }
  writeFileSync(
    join(tools, 'purge-cache'),
    `#!/bin/sh\nexec node -e 'fetch(process.argv[1] + process.argv[2], { method: "PURGE" })' ${origin} "$1"\n`,
    { mode: 0o755 },
  )
  const file = join(sources, 'src/notices.js')
  execFileSync('git', ['-c', 'safe.directory=*', '-C', sources, 'checkout', '--', 'src/notices.js'])
  try {
    expect(ship('day-one').status).toBe(0)
    const first = await arrive('day-one', at)
    expect(first.out).toContain('Arrived: all 3 files as built')
    expect(first.status).toBe(0)
    chmodSync(file, 0o644)
    writeFileSync(file, readFileSync(file, 'utf8').replace('pier two', 'pier four'))
    const last = join(place, 'day-one/artefacts/release.json')
    expect(ship('day-two', { LAST_RELEASE: last }).status).toBe(0)
    const stale = await arrive('day-two', { ...at, LAST_RELEASE: last, WAIT: '2' })
    expect(stale.status).toBe(1)
    expect(stale.out).toContain('live/old-content')
    const second = await arrive('day-two', { ...at, LAST_RELEASE: last, PURGE: 'purge-cache' })
    expect(asked).toEqual(['/notices/', '/notices/index.html'])
    expect(second.out).toContain('Arrived: all 3 files as built')
    expect(second.status).toBe(0)
    const report = JSON.parse(readFileSync(join(place, 'day-two/artefacts/live.json'), 'utf8'))
    expect(report.live.asBuilt).toBe(report.live.files)
  } finally {
    close()
  }
}, 120_000)
