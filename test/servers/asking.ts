import { get } from 'node:http'

/** Files with their own names as content, so that the answer tells which was sent. */
export const serverFiles = [
  'index.html',
  '404.html',
  'about/index.html',
  'plain.html',
  'both.html',
  'both/index.html',
  'deep/er/leaf.txt',
  'de/index.html',
  'en/index.html',
  'assets/app-AbCdEf12.js',
  'assets/module.mjs',
  'assets/a b.css',
  'assets/häfen.svg',
  'assets/Logo.SVG',
  'Case.txt',
  'no-extension',
  'dotted.name/index.html',
  'data/list.json',
  'data/program.wasm',
  'site.webmanifest',
  '_kept/x.js',
  '.well-known/security.txt',
  '.hidden',
  'listed/one.txt',
]

const paths = [
  ...[
    '',
    'index.html',
    'about',
    'about/',
    'about/index.html',
    'about//',
    'plain',
    'plain.html',
    'plain/',
    'plain.html/',
  ],
  ...[
    'both',
    'both/',
    'both.html',
    'deep',
    'deep/',
    'deep/er',
    'deep/er/',
    'deep/er/leaf.txt',
    'deep/er/leaf',
    'deeper',
  ],
  ...[
    'de',
    'de/',
    'de/x',
    'en/x/y',
    'fr/',
    'assets',
    'assets/',
    'assets/app-AbCdEf12.js',
    'assets/gone.js',
    'assets/gone.css',
  ],
  ...[
    'assets/module.mjs',
    'assets/a%20b.css',
    'assets/h%C3%A4fen.svg',
    'assets/Logo.SVG',
    'assets/logo.svg',
    'case.txt',
    'Case.txt',
  ],
  ...[
    'no-extension',
    'no-extension/',
    'dotted.name',
    'dotted.name/',
    'data/list.json',
    'data/program.wasm',
    'site.webmanifest',
  ],
  ...[
    '_kept/x.js',
    '.well-known/security.txt',
    '.hidden',
    '.gone',
    'listed',
    'sailings',
    'sailings/',
    'sailings/42',
    'sailings/42/',
  ],
  ...[
    'a%2Fb',
    'x.json',
    'x.html',
    '404',
    '404.html',
    'old',
    'old/',
    'old/x',
    'older',
    'away',
    'gone',
    'gone/x',
    'api/v1',
    'api',
  ],
  ...[
    'app/gone.js',
    'app/module.mjs',
    'first',
    'by-name/x',
    'by-name/7',
    'index',
    'lost.html',
    'down.html',
    'a%20page',
  ],
]

/** What is requested of a site at a base path. */
export function serverPaths(base: string): string[] {
  const outside =
    base === '/'
      ? []
      : ['/', '/crossings', '/crossingsx', '/index.html', '/about/', '/assets/app-AbCdEf12.js']
  return [...paths.map((path) => base + path), ...outside]
}

/** What came back. */
export interface Seen {
  readonly status: number
  readonly file: string | null
  readonly location: string | null
  readonly contentType: string | null
}

interface Response {
  readonly status: number
  readonly body: string
  readonly location: string | null
  readonly contentType: string | null
}

export function asked(port: number, path: string): Promise<Response> {
  return new Promise((resolve, reject) => {
    get({ port, path, host: '127.0.0.1', agent: false }, (response) => {
      let body = ''
      response.setEncoding('utf8').on('data', (part) => {
        body += part
      })
      response.on('end', () => {
        const { statusCode: status = 0, headers } = response
        resolve({
          status,
          body,
          location: headers.location ?? null,
          contentType: headers['content-type'] ?? null,
        })
      })
    }).on('error', reject)
  })
}

/** A response as the model tells it: the port is the test's own. */
export function sentBy({ status, body, location, contentType }: Response, port: number): Seen {
  const file = location === null && serverFiles.includes(body) ? body : null
  return {
    status,
    file,
    location: location?.replace(`http://127.0.0.1:${port}`, '') ?? null,
    contentType: file === null ? null : (contentType?.replace(/;.*/, '') ?? null),
  }
}
