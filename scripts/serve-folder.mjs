// Serves a folder with a fallback below each directory at its top, as a host that holds a release would: a stand-in for pictures.
import { readFile } from 'node:fs/promises'
import { createServer } from 'node:http'
import { extname, join, normalize } from 'node:path'
import { gzipSync } from 'node:zlib'

const [folder, port] = process.argv.slice(2)
const types = {
  '.html': 'text/html',
  '.js': 'text/javascript',
  '.css': 'text/css',
  '.svg': 'image/svg+xml',
  '.txt': 'text/plain',
}

createServer(async ({ url = '/' }, answer) => {
  const path = normalize(decodeURIComponent(new URL(url, 'http://x').pathname))
  const named = path.endsWith('/') ? `${path}index.html` : path
  const own = await readFile(join(folder, named)).catch(() => null)
  const isPage = extname(path) === ''
  const body =
    own ??
    (isPage ? await readFile(join(folder, path.split('/')[1] ?? '', 'index.html')).catch(() => null) : null)
  const isHashed = /-[\w-]{8}\.\w+$/.test(path)
  answer.writeHead(body ? 200 : 404, {
    'content-type': types[extname(own ? named : '.html')] ?? 'application/octet-stream',
    'content-encoding': 'gzip',
    'cache-control': isHashed ? 'public, max-age=31536000, immutable' : 'no-cache',
  })
  answer.end(gzipSync(body ?? 'nothing'))
}).listen(Number(port), '127.0.0.1')
