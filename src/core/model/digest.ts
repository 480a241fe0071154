import { md5 } from '@noble/hashes/legacy.js'

/** One digest that a file may have. */
export interface Digest {
  readonly algorithm: 'MD5' | 'SHA-1' | 'SHA-256' | 'SHA-384' | 'SHA-512'
  /** In hex, or base64 as Subresource Integrity writes it. */
  readonly value: string
}

const named = {
  md5: 'MD5',
  sha1: 'SHA-1',
  sha256: 'SHA-256',
  sha384: 'SHA-384',
  sha512: 'SHA-512',
} as const

/** The digests of an `integrity` attribute (Subresource Integrity, W3C, 3.5), or `sha1:` and `md5:` with hex. Others are left out. */
export function digestsOf(text: string): Digest[] {
  return text
    .trim()
    .split(/\s+/)
    .flatMap((token) => {
      const match = /^(md5(?=:)|sha1(?=:)|sha(?:256|384|512)(?=-))[-:]([\w+/=-]+)(?:\?.*)?$/.exec(token)
      return match?.[2] ? [{ algorithm: named[match[1] as keyof typeof named], value: match[2] }] : []
    })
}

const order = ['MD5', 'SHA-1', 'SHA-256', 'SHA-384', 'SHA-512']

/** Of several digests browsers heed the strongest algorithm's alone (Subresource Integrity, 3.3.4). */
export function strongest(digests: readonly Digest[]): Digest[] {
  const most = Math.max(...digests.map(({ algorithm }) => order.indexOf(algorithm)))
  return digests.filter(({ algorithm }) => order.indexOf(algorithm) === most)
}

/** Whether a file has one of the digests that count. No digest that is understood is no demand. */
export async function matches(bytes: Uint8Array, integrity: string): Promise<boolean> {
  const wanted = strongest(digestsOf(integrity))
  const [first] = wanted
  if (!first) return true
  const found = await hashOf(bytes, first.algorithm)
  const written = new Set([hexOf(found), base64Of(found)])
  return wanted.some(({ value }) => written.has(value.replaceAll('-', '+').replaceAll('_', '/')))
}

/** The SHA-256 of a text as policies and Subresource Integrity write it. */
export async function sha256Of(text: string): Promise<string> {
  return `sha256-${base64Of(await hashOf(new TextEncoder().encode(text), 'SHA-256'))}`
}

async function hashOf(bytes: Uint8Array, algorithm: Digest['algorithm']): Promise<Uint8Array> {
  if (algorithm === 'MD5') return md5(bytes)
  return new Uint8Array(await crypto.subtle.digest(algorithm, new Uint8Array(bytes)))
}

function hexOf(bytes: Uint8Array): string {
  return Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0')).join('')
}

function base64Of(bytes: Uint8Array): string {
  return btoa(String.fromCharCode(...bytes))
}
