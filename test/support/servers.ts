import { type ChildProcess, spawn, spawnSync } from 'node:child_process'
import { mkdirSync, writeFileSync } from 'node:fs'
import { get } from 'node:http'
import { join } from 'node:path'

/** Whether a program is on this machine. Servers are where a user's path may not lead. */
export function installed(command: string): boolean {
  const { status } = spawnSync('sh', ['-c', `PATH="$PATH:/usr/sbin" command -v ${command}`])
  return status === 0
}

/** Starts nginx with these blocks of its http context, all of its files below one directory. */
export async function nginx(own: string, port: number, blocks: string): Promise<ChildProcess> {
  mkdirSync(own, { recursive: true })
  const user = process.getuid?.() === 0 ? 'user root;' : ''
  const temporary = ['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi'].map(
    (kind) => `${kind}_temp_path ${own}/${kind};`,
  )
  const config = join(own, 'nginx.conf')
  writeFileSync(
    config,
    `${user} daemon off; pid ${own}/pid; error_log ${own}/error.log; events {}\nhttp { access_log off; ${temporary.join(' ')} ${blocks} }`,
  )
  const server = spawn('nginx', ['-c', config, '-p', own], { stdio: 'inherit' })
  await untilUp(port)
  return server
}

/** Waits until something answers. */
export async function untilUp(port: number): Promise<void> {
  for (let tries = 0; tries < 100; tries++) {
    if (await answers(port)) return
    await new Promise((resolve) => setTimeout(resolve, 50))
  }
  throw new Error(`nothing answers on port ${port}`)
}

function answers(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    get({ port, path: '/', host: '127.0.0.1' }, (response) => {
      response.resume().on('end', () => resolve(true))
    }).on('error', () => resolve(false))
  })
}
