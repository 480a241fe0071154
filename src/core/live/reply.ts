/** What an address answered. */
export interface LiveReply {
  readonly status: number
  /** By name in small letters; one that came several times is joined by commas. */
  readonly headers: ReadonlyMap<string, string>
  /** Unpacked; empty where nothing was to be read. */
  readonly body: Uint8Array
  /** Whether all of it was read: it may be larger than was asked for. */
  readonly isWhole: boolean
}

/** One request: the address, and how much of the answer is read at the most; bytes. */
export interface LiveQuestion {
  readonly url: string
  readonly most: number
}

/** Asks one address; a sentence where nothing came. Follows no redirect. */
export type LiveAsker = (question: LiveQuestion) => Promise<LiveReply | string>
