import { own } from '../core/model/own.ts'

const reasons: Readonly<Record<string, string>> = {
  ECONNREFUSED: 'nothing listens there',
  ENOTFOUND: 'there is no such host',
  EAI_AGAIN: 'the name of the host could not be looked up',
  ECONNRESET: 'the connection was broken off',
  HPE_HEADER_OVERFLOW: 'the head of its answer is too large',
  CERT_HAS_EXPIRED: 'its certificate has expired',
  DEPTH_ZERO_SELF_SIGNED_CERT: 'its certificate is signed by itself',
  ERR_TLS_CERT_ALTNAME_INVALID: 'its certificate is for another name',
}

/** Why nothing came, in words that complete a sentence. */
export function failureOf(error: unknown): string {
  const code = error instanceof Error && 'code' in error ? String(error.code) : ''
  return (
    own(reasons, code) ??
    (error instanceof Error && code === '' ? error.message : `the connection failed (${code})`)
  )
}
