import { z } from 'zod'
import { UsageError } from '../core/model/errors.ts'

/** By origin, by path: the JSON that a service answers. */
const form = z.record(z.url(), z.record(z.string().startsWith('/'), z.unknown()))

/** An answer as a browser is given it. */
export interface Played {
  readonly status: number
  readonly headers: Record<string, string>
  readonly body: string
}

/** What the services of a site answer while it is rehearsed, from a file that a person wrote. */
export class StandInBook {
  readonly #services: ReadonlyMap<string, Readonly<Record<string, unknown>>>

  private constructor(services: ReadonlyMap<string, Readonly<Record<string, unknown>>>) {
    this.#services = services
  }

  /** @throws {UsageError} when the text is no JSON of this form. */
  static parse(name: string, text: string): StandInBook {
    try {
      const found = form.parse(JSON.parse(text))
      return new StandInBook(
        new Map(Object.entries(found).map(([url, paths]) => [new URL(url).origin, paths])),
      )
    } catch {
      throw new UsageError(
        `${name} does not say what services answer. Write {"https://api.skerryline.example": {"/v1/sailings": []}}.`,
      )
    }
  }

  /** The answer to a request, or null when the service is not in the book. It allows the site, whatever the real one does. */
  answer(method: string, url: URL, origin: string): Played | null {
    const paths = this.#services.get(url.origin)
    if (!paths) return null
    const allowing = {
      'access-control-allow-origin': origin,
      'access-control-allow-credentials': 'true',
      'access-control-allow-methods': 'GET, HEAD, POST, PUT, PATCH, DELETE',
      'access-control-allow-headers': 'authorization, content-type, x-requested-with',
      'content-type': 'application/json',
    }
    if (method === 'OPTIONS') return { status: 204, headers: allowing, body: '' }
    const body = paths[url.pathname]
    return {
      status: body === undefined ? 404 : 200,
      headers: allowing,
      body: JSON.stringify(body ?? { error: 'not found' }),
    }
  }
}
