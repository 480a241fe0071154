/** One request of a page. */
export interface HarEntry {
  readonly method: string
  readonly url: string
  readonly headers: Readonly<Record<string, string>>
  /** 0 when nothing came. */
  readonly status: number
  readonly bytes: number
  /** Milliseconds since the epoch. */
  readonly started: number
  readonly took: number
}

/** The requests of one page. */
export interface HarPage {
  readonly title: string
  readonly entries: readonly HarEntry[]
}

/** What was requested, as an HTTP archive (HAR 1.2), without any body. */
export function harOf(pages: readonly HarPage[], version: string): object {
  return {
    log: {
      version: '1.2',
      creator: { name: 'wardoscope', version },
      pages: pages.map(({ title, entries }, index) => ({
        startedDateTime: new Date(entries[0]?.started ?? 0).toISOString(),
        id: `page_${index + 1}`,
        title,
        pageTimings: { onContentLoad: -1, onLoad: -1 },
      })),
      entries: pages.flatMap(({ entries }, index) =>
        entries.map((entry) => entryOf(entry, `page_${index + 1}`)),
      ),
    },
  }
}

function entryOf({ method, url, headers, status, bytes, started, took }: HarEntry, pageref: string): object {
  return {
    pageref,
    startedDateTime: new Date(started).toISOString(),
    time: took,
    request: {
      method,
      url,
      httpVersion: 'HTTP/1.1',
      cookies: [],
      headers: Object.entries(headers).map(([name, value]) => ({ name, value })),
      queryString: [...new URL(url).searchParams].map(([name, value]) => ({ name, value })),
      headersSize: -1,
      bodySize: -1,
    },
    response: {
      status,
      statusText: '',
      httpVersion: 'HTTP/1.1',
      cookies: [],
      headers: [],
      content: { size: bytes, mimeType: '' },
      redirectURL: '',
      headersSize: -1,
      bodySize: bytes,
    },
    cache: {},
    timings: { send: 0, wait: took, receive: 0 },
  }
}
