import type { MapVariable } from './read.ts'

/** What an expression comes to; null where it names something that nobody knows beforehand. */
export type Value = string | null

/** What a browser that comes for the first time sends. */
const ofVisitor: Readonly<Record<string, string>> = {
  request_method: 'GET',
  server_protocol: 'HTTP/1.1',
  http_user_agent:
    'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Safari/537.36',
  http_accept: 'text/html,application/xhtml+xml,application/xml;q=0.9,*/*;q=0.8',
  http_accept_language: 'en',
  http_accept_encoding: 'gzip, deflate, br',
  http_origin: '',
  http_referer: '',
  http_cookie: '',
  http_upgrade: '',
  http_authorization: '',
  http_range: '',
  http_if_modified_since: '',
  http_x_requested_with: '',
}

/** The variables of a request: its own, those that are set, groups of the last pattern, and what maps make of them. */
export class Variables {
  readonly #own: (name: string) => string | undefined
  readonly #maps: ReadonlyMap<string, MapVariable>
  readonly #set = new Map<string, Value>()
  #groups: readonly (string | undefined)[] = []
  #depth = 0

  constructor(own: (name: string) => string | undefined, maps: readonly MapVariable[]) {
    this.#own = own
    this.#maps = new Map(maps.map((map) => [map.name, map]))
  }

  set(name: string, value: Value): void {
    this.#set.set(name, value)
  }

  /** Keeps the groups of a pattern that fitted; named ones stay. */
  matched(match: RegExpExecArray): void {
    this.#groups = match
    for (const [name, value] of Object.entries(match.groups ?? {})) this.#set.set(name, value ?? '')
  }

  of(name: string): Value {
    if (/^\d$/.test(name)) return this.#groups[Number(name)] ?? ''
    const set = this.#set.get(name)
    if (set !== undefined) return set
    const map = this.#maps.get(name)
    if (map) return this.#ofMap(map)
    if (name.startsWith('cookie_') || name.startsWith('arg_')) return this.#own(name) ?? ''
    return this.#own(name) ?? (Object.hasOwn(ofVisitor, name) ? (ofVisitor[name] ?? null) : null)
  }

  #ofMap({ source, byValue, byPattern, usual }: MapVariable): Value {
    if (this.#depth > 10) return null
    this.#depth++
    const key = this.expand(source)
    const found =
      key === null ? null : (byValue.get(key.toLowerCase()) ?? this.#byPattern(byPattern, key) ?? usual)
    const value = found === null ? null : this.expand(found)
    this.#depth--
    return value
  }

  #byPattern(patterns: MapVariable['byPattern'], key: string): string | null {
    for (const { pattern, value } of patterns) {
      const match = pattern.exec(key)
      if (!match) continue
      this.matched(match)
      return value
    }
    return null
  }

  /** A text with its variables in place. @param written how groups are written into it */
  expand(text: string, written: (group: string) => string = (group) => group): Value {
    let isKnown = true
    const expanded = text.replace(/\$(?:\{(\w+)\}|(\w+))/g, (_, braced?: string, plain?: string) => {
      const name = braced ?? plain ?? ''
      const value = this.of(name)
      isKnown &&= value !== null
      return /^\d$/.test(name) ? written(value ?? '') : (value ?? '')
    })
    return isKnown ? expanded : null
  }
}
