import { createHash } from 'node:crypto'
import { promisify } from 'node:util'
import { brotliCompress, constants, gzip } from 'node:zlib'
import { answer } from '../core/host/answer.ts'
import type { Answer, Host, HostFiles } from '../core/host/host.ts'
import { FolderError } from '../core/model/errors.ts'
import type { Folder } from '../core/model/folder.ts'
import { withoutQuery } from '../core/model/reference.ts'
import type { Site } from '../core/model/site.ts'

/** What is played: a host with its rules, at an address, over a folder. */
export interface Stage {
  readonly host: Host
  readonly site: Site
  readonly files: HostFiles
  readonly folder: Folder
}

/** A request as far as a host heeds it. Header names are in lower case. */
export interface HttpRequest {
  readonly method: string
  /** Path and query as the browser sends them. */
  readonly target: string
  readonly headers: Readonly<Record<string, string | string[] | undefined>>
}

/** A whole answer. */
export interface HttpReply {
  readonly status: number
  readonly headers: Readonly<Record<string, string>>
  readonly body: Uint8Array
  /** What the host model said, for whoever watches. */
  readonly said: Answer
}

const nothing = new Uint8Array()

/** Longer targets are refused, as servers do; characters. */
const longestTarget = 8_192

/** Answers one request as the host would. What decides is the host model; the rest is the trade of HTTP (RFC 9110). */
export async function respond(stage: Stage, { method, target, headers }: HttpRequest): Promise<HttpReply> {
  if (!isSound(target)) return plain(refusal(400, 'a malformed request'))
  const said = answer(stage.host, stage.site, stage.files, withoutQuery(target))
  if (method !== 'GET' && method !== 'HEAD')
    return plain(
      { ...said, status: 405, file: null, rule: 'a method that files have not' },
      { allow: 'GET, HEAD' },
    )
  if (said.by === 'proxy') return plain({ ...said, status: 502 })
  if (said.location !== null) return plain(said, { location: said.location })
  const bytes = said.file === null ? null : await read(stage.folder, said.file)
  if (bytes === null && isFront(target, said, stage.site)) return signpost(said, stage.site)
  if (bytes === null) return plain(said.file === null ? said : { ...said, status: 404 })
  return method === 'HEAD'
    ? withoutBody(await withFile(said, bytes, headers))
    : withFile(said, bytes, headers)
}

/** Browsers resolve dots and turn backslashes before they ask; what still has them is no browser. */
function isSound(target: string): boolean {
  const [path = ''] = target.split(/[?#]/, 1)
  const hostile = /[\\\u0000-\u0020]|%00|%5c|(?:^|\/|%2f)(?:\.|%2e){1,2}(?:\/|%2f|$)/i
  return target.startsWith('/') && target.length <= longestTarget && !hostile.test(path)
}

async function read(folder: Folder, path: string): Promise<Uint8Array | null> {
  try {
    // Somebody may have changed the folder since it was looked at.
    return folder.readNow ? folder.readNow(path) : await folder.read(path)
  } catch (error) {
    // A link that leaves the folder, or a file that went away.
    if (error instanceof FolderError) return null
    throw error
  }
}

/** What a file is sent as whose name says nothing. */
export const unknownType = 'application/octet-stream'

async function withFile(
  said: Answer,
  bytes: Uint8Array,
  requested: HttpRequest['headers'],
): Promise<HttpReply> {
  const type = said.contentType ?? unknownType
  const etag = `"${createHash('sha256').update(bytes).digest('base64url').slice(0, 22)}"`
  const headers = { 'content-type': type, etag, 'cache-control': 'no-cache', 'accept-ranges': 'bytes' }
  if (said.status !== 200)
    return { status: said.status, headers: { ...headers, ...lengthOf(bytes) }, body: bytes, said }
  if (matches(requested['if-none-match'], etag)) return { status: 304, headers, body: nothing, said }
  const range = rangeOf(requested.range, bytes.length)
  if (range === 'none') {
    return { status: 416, headers: { 'content-range': `bytes */${bytes.length}` }, body: nothing, said }
  }
  if (range) {
    const part = bytes.subarray(range.start, range.end + 1)
    const place = `bytes ${range.start}-${range.end}/${bytes.length}`
    return {
      status: 206,
      headers: { ...headers, 'content-range': place, ...lengthOf(part) },
      body: part,
      said,
    }
  }
  const packed = await compressed(bytes, type, requested['accept-encoding'])
  const encoding = packed ? { 'content-encoding': packed.encoding } : {}
  const body = packed?.bytes ?? bytes
  return {
    status: 200,
    headers: { ...headers, vary: 'accept-encoding', ...encoding, ...lengthOf(body) },
    body,
    said,
  }
}

function lengthOf(bytes: Uint8Array): { 'content-length': string } {
  return { 'content-length': String(bytes.length) }
}

function matches(given: string | string[] | undefined, etag: string): boolean {
  return [given ?? []]
    .flat()
    .some((list) =>
      list.split(',').some((each) => each.trim().replace(/^W\//, '') === etag || each.trim() === '*'),
    )
}

/** One range of bytes (RFC 9110, 14.2). Several, or other units, are passed over as the standard allows. */
function rangeOf(
  given: string | string[] | undefined,
  size: number,
): { start: number; end: number } | 'none' | null {
  const match = /^bytes=(\d*)-(\d*)$/.exec(typeof given === 'string' ? given.trim() : '')
  if (!match || (match[1] === '' && match[2] === '')) return null
  const last = match[2] === '' ? size - 1 : Math.min(Number(match[2]), size - 1)
  const start = match[1] === '' ? Math.max(0, size - Number(match[2])) : Number(match[1])
  const end = match[1] === '' ? size - 1 : last
  return start > end || start >= size ? 'none' : { start, end }
}

const brotli = promisify(brotliCompress)
const zip = promisify(gzip)
const texts = /^(?:text\/|application\/(?:javascript|json|manifest\+json|xml|wasm)|image\/svg\+xml)/
/** Smaller files gain nothing; bytes. */
const smallest = 1_024

async function compressed(
  bytes: Uint8Array,
  type: string,
  accepted: string | string[] | undefined,
): Promise<{ bytes: Uint8Array; encoding: string } | null> {
  if (bytes.length < smallest || !texts.test(type)) return null
  const list = [accepted ?? []].flat().join(',')
  // Quick levels: this plays a host, and measures nothing.
  if (/\bbr\b/.test(list))
    return { bytes: await brotli(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: 4 } }), encoding: 'br' }
  return /\bgzip\b/.test(list) ? { bytes: await zip(bytes, { level: 5 }), encoding: 'gzip' } : null
}

function withoutBody(reply: HttpReply): HttpReply {
  return { ...reply, body: nothing }
}

function refusal(status: number, rule: string): Answer {
  return { status, file: null, contentType: null, location: null, by: 'malformed', rule }
}

/** Whether somebody opened the top of a host whose site is below it. */
function isFront(target: string, { file, status }: Answer, { base }: Site): boolean {
  return base !== '/' && target === '/' && file === null && status === 404
}

/** The same status, with a way to the site: a person who goes on by hand begins at the top. */
function signpost(said: Answer, { base }: Site): HttpReply {
  const path = base.replace(/[&<>"']/g, (character) => `&#${character.charCodeAt(0)};`)
  const page = `<!doctype html><title>404</title><p>Nothing is at the top. The site is at <a href="${path}">${path}</a>.</p>\n`
  const body = new TextEncoder().encode(page)
  return {
    status: 404,
    headers: { 'content-type': 'text/html; charset=utf-8', ...lengthOf(body) },
    body,
    said,
  }
}

/** An answer without a file: the host's own words for its status. */
function plain(said: Answer, more: Readonly<Record<string, string>> = {}): HttpReply {
  const body = new TextEncoder().encode(`${said.status}\n`)
  return {
    status: said.status,
    headers: { 'content-type': 'text/plain', ...more, ...lengthOf(body) },
    body,
    said,
  }
}
