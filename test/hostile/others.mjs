// Archives and requests that somebody changed at random, and what must hold of them.
import { zipSync } from 'fflate'
import { random } from './mutate.mjs'

const texts = (files) =>
  Object.fromEntries(
    Object.entries(files).map(([path, text]) => [path, new TextEncoder().encode(String(text))]),
  )

/** A zip of a folder with some of its bytes changed, cut or doubled. */
export function mutatedArchive(folders, seed) {
  const next = random(seed)
  const bytes = zipSync(texts(folders[seed % folders.length]), { level: seed % 3 })
  const changed = [...bytes]
  for (let times = 1 + Math.floor(next() * 4); times > 0; times--) {
    const at = Math.floor(next() * changed.length)
    const kind = next()
    if (kind < 0.6) changed[at] = Math.floor(next() * 256)
    else if (kind < 0.8) changed.splice(at, Math.floor(next() * 40))
    else changed.splice(at, 0, ...changed.slice(at, at + Math.floor(next() * 40)))
  }
  return new Uint8Array(changed)
}

/** An archive is read as it was packed, or refused in one sentence; null when that holds. */
export async function archiveFaultIn({ folderOfZip, walk }, folders, seed) {
  const files = texts(folders[seed % folders.length])
  const known = new Set(Object.values(files).map((bytes) => new TextDecoder().decode(bytes)))
  try {
    const folder = await folderOfZip(mutatedArchive(folders, seed), 'site.zip')
    for await (const path of walk(folder)) {
      const text = new TextDecoder().decode(await folder.read(path))
      if (!known.has(text)) return `${path} holds what was never packed`
    }
  } catch (error) {
    if (error.name !== 'FolderError') return `${error.name}: ${error.message}`.slice(0, 200)
    if (/\n/.test(error.message)) return 'an error of several lines'
  }
  return null
}

const parts = [
  '/b/',
  '/b/index.html',
  '/b/sailings',
  '..',
  '%2e%2e',
  '%2F',
  '%00',
  '%',
  '%zz',
  '\\',
  '//',
  '?',
  '#',
  '.',
  'a'.repeat(9_000),
]
const more = [
  'é',
  '\u202e',
  'http://x/',
  '*',
  ' ',
  '\t',
  '\u0000',
  'CON',
  '~',
  ';',
  '[',
  '/etc/passwd',
  '/b/a.png',
  '/b/assets/',
]
const ranges = ['bytes=0-', 'bytes=-1', 'bytes=9-1', 'bytes=0-0,2-3', 'bytes=99999999999999999999-', 'x', '']

/** What somebody may send: any target, any headers. */
export function anyRequest(seed) {
  const next = random(seed)
  const all = [...parts, ...more]
  const pick = (list) => list[Math.floor(next() * list.length)]
  const target = Array.from({ length: 1 + Math.floor(next() * 4) }, () => pick(all)).join('')
  const headers = {
    range: pick([undefined, ...ranges]),
    'if-none-match': pick([undefined, '*', '"x"', 'W/"']),
    'accept-encoding': pick([undefined, 'br', 'gzip;q=0', 'x'.repeat(500)]),
  }
  return {
    method: pick(['GET', 'HEAD', 'POST', 'X']),
    target: next() < 0.7 ? `/b/${target}` : target,
    headers,
  }
}

/** An answer is a file of the folder, or none; null when that holds. */
export async function requestFaultIn(respond, stage, files, seed) {
  const request = anyRequest(seed)
  const shown = JSON.stringify(request.target).slice(0, 80)
  try {
    const { status, body, headers } = await respond(stage, request)
    if (!Number.isInteger(status) || status < 200 || status > 599) return `${shown}: status ${status}`
    if (Object.values(headers).some((value) => /[\r\n\0]/.test(value)))
      return `${shown}: a header of several lines`
    const known = Object.values(files).some((text) => String(text) === new TextDecoder().decode(body))
    if (status === 200 && !known && request.method === 'GET' && !headers['content-encoding'])
      return `${shown}: what is no file of the folder`
  } catch (error) {
    return `${shown}: ${error.name}: ${error.message}`.slice(0, 300)
  }
  return null
}
