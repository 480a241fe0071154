import { spawnSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { extname, join } from 'node:path'
import { expect } from 'vitest'

const types: Record<string, string> = {
  '.html': 'text/html',
  '.js': 'text/javascript',
  '.css': 'text/css',
  '.svg': 'image/svg+xml',
  '.json': 'application/json',
}

/** An example as a host serves it. */
export interface ServedExample {
  readonly address: string
  /** The paths that were requested. */
  readonly requested: readonly string[]
  readonly close: () => void
}

/** Builds an example as people build it. */
export function buildExample(name: string): void {
  run('npm', ['run', 'build', '-w', name])
}

/** Builds an example with the plugin beside its own; what was printed. */
export function buildChecked(name: string, options: Readonly<Record<string, unknown>>): string {
  const code = `
    import { build } from 'vite'
    import { wardoscope } from './dist/vite/index.js'
    await build({ root: 'examples/${name}', plugins: [wardoscope(${JSON.stringify(options)})] })`
  return run('node', ['--input-type=module', '--eval', code])
}

/** A test runner's NODE_ENV would make it a development build, which its own check finds. */
function run(program: string, args: readonly string[]): string {
  const { NODE_ENV: _, VITEST: __, ...env } = process.env
  const { status, stdout, stderr } = spawnSync(program, args, {
    env: { ...env, NO_COLOR: '1' },
    encoding: 'utf8',
  })
  expect(status, stderr).toBe(0)
  return stdout + stderr
}

/** Serves what an example was built to, under a path, as any host may. */
export async function serveExample(name: string, path: string): Promise<ServedExample> {
  const requested: string[] = []
  const server = createServer(({ url = '' }, response) => {
    requested.push(url)
    const file = url.startsWith(path) ? url.slice(path.length) || 'index.html' : ''
    try {
      const body = readFileSync(join('examples', name, 'dist', file))
      response.writeHead(200, { 'content-type': types[extname(file)] ?? '' }).end(body)
    } catch {
      response.writeHead(404).end()
    }
  }).listen(0, '127.0.0.1')
  await new Promise((resolve) => server.once('listening', resolve))
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}${path}`
  return { address, requested, close: () => server.close() }
}
