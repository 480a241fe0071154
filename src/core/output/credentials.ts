import type { CredentialShape } from '../model/facts.ts'
import { environmentWords, machineEnvironmentsIn } from './machine-environment.ts'
import { type Mentions, WordList } from './words.ts'

/** Shapes that issuers give to their secrets: a prefix of their own, then random letters. */
interface IssuedShape {
  readonly kind: string
  readonly pattern: string
  /** The prefix belongs to nothing else, and to nothing that is public or for trying out. */
  readonly live?: true
}

/**
 * Only secrets are listed: what is meant for browsers (publishable keys, map keys, anonymous tokens) has other prefixes. All
 * take their random part from a fixed alphabet at a fixed length, or at the least one.
 */
const issued: readonly IssuedShape[] = [
  { kind: 'a secret key of a payment service', pattern: '[sr]k_live_[0-9A-Za-z]{24,}', live: true },
  { kind: 'an access token of a code host', pattern: 'gh[opusr]_[0-9A-Za-z]{36}', live: true },
  { kind: 'an access token of a code host', pattern: '[a-z]+_pat_[0-9A-Za-z]{22}_[0-9A-Za-z]{59}' },
  { kind: 'an access token of a code host', pattern: 'glpat-[\\w-]{20,}', live: true },
  { kind: 'an access token of a package registry', pattern: 'npm_[0-9A-Za-z]{36}', live: true },
  { kind: 'an access key of a cloud account', pattern: 'A(?:KIA|SIA)[0-9A-Z]{16}' },
  { kind: 'a token of a chat service', pattern: 'xox[abeprs]-\\d+-[\\w-]{20,}', live: true },
  { kind: 'a key of a mail service', pattern: 'SG\\.[\\w-]{22}\\.[\\w-]{43}', live: true },
  { kind: 'a key of a model service', pattern: 'sk-[a-z]*-?[\\w-]{40,}' },
  { kind: 'an access token of a shop', pattern: 'shp(?:at|ca|pa|ss)_[0-9a-f]{32}', live: true },
  { kind: 'an access token of a hosting account', pattern: 'do[opr]_v1_[0-9a-f]{64}', live: true },
]

const issuedPattern = new RegExp(
  `(?<![\\w.$/+=-])(?:${issued.map(({ pattern }) => `(${pattern})`).join('|')})(?![\\w/+=-])`,
  'y',
)
/** What every issued shape begins with, or holds behind a word: the pattern itself is tried only there. */
const issuedHints = [
  ...['sk_live_', 'rk_live_', '_pat_', 'glpat-', 'npm_', 'AKIA', 'ASIA', 'SG.', 'sk-'],
  ...['gho_', 'ghp_', 'ghu_', 'ghs_', 'ghr_'],
  ...['a', 'b', 'e', 'p', 'r', 's'].map((letter) => `xox${letter}-`),
  ...['at', 'ca', 'pa', 'ss'].map((letters) => `shp${letters}_`),
  ...['o', 'p', 'r'].map((letter) => `do${letter}_v1_`),
]
/** A word before a hint; letters. */
const longestPrefix = 20

const keyHeader = /-----BEGIN (?:[A-Z]+ )*PRIVATE KEY(?: BLOCK)?-----((?:\\[nr]|[\s"'`+,\\]|[0-9A-Za-z/=])*)/g

/** Address schemes of stores, queues and mail. Those of the web carry names and passwords in examples everywhere. */
const storeScheme =
  /(?:^|[^a-z])(?:postgres(?:ql)?|mysql|mariadb|mongodb(?:\+srv)?|rediss?|amqps?|mssql|sqlserver|ldaps?|s?ftp|smtps?)$/i
const longestScheme = 16
const login = /:\/\/([^\s:/?#@"'`<>${}]{1,200}):([^\s/@"'`<>${}]{1,200})@([\w.-]{1,255})/y

/** A name that ends in a word for a secret, and the text it is given. Found by its end, so that no long word is tried twice. */
const keyed =
  /(?:secret|password|passwd|private_?key|(?:secret|access)_?key|access_?token|auth_?token)["']?\s{0,9}[:=]\s{0,9}(["'`])([\w+/=.~-]{20,200})\1/iy
/** Words that such a name ends in, or the beginning of those. */
const keyedHints = [
  ...['secret', 'password', 'passwd', 'private_key', 'privatekey', 'access_key', 'accesskey'],
  ...['access_token', 'accesstoken', 'auth_token', 'authtoken'],
]

const jwt = /(?<![\w.-])eyJ[\w-]{8,2000}\.(eyJ[\w-]{8,4000})\.[\w-]{20,2000}/g

/** Bits of each character, by how often each occurs (Shannon). Random letters have more than three and a half; words have less. */
export function entropyOf(text: string): number {
  const counts = new Map<string, number>()
  for (const letter of text) counts.set(letter, (counts.get(letter) ?? 0) + 1)
  let bits = 0
  for (const count of counts.values()) bits -= (count / text.length) * Math.log2(count / text.length)
  return bits
}

/** What credentials are found by. */
export const credentialWords = [
  ...environmentWords,
  'PRIVATE KEY',
  ...issuedHints,
  '://',
  ...keyedHints,
  'eyJ',
]
const own = new WordList(credentialWords)

/** Texts of a built file that look like credentials; context, length and entropy tell them from names, hashes and samples. */
export function credentialsIn(text: string, mentions: Mentions = own.in(text)): CredentialShape[] {
  const environments = machineEnvironmentsIn(text, mentions)
  const others = credentialsBeside(text, mentions)
  if (environments.length === 0) return others
  // The whole is one thing to know, whatever is in it.
  const isInside = ({ offset }: CredentialShape): boolean =>
    environments.some((whole) => offset >= whole.offset && offset < whole.offset + whole.length)
  return [...environments, ...others.filter((each) => !isInside(each))]
}

function credentialsBeside(text: string, mentions: Mentions): CredentialShape[] {
  return [
    ...(mentions.has('PRIVATE KEY') ? keys(text) : []),
    ...issuedSecrets(text, mentions),
    ...logins(text, mentions),
    ...keyedLiterals(text, mentions),
    ...(mentions.has('eyJ') ? serviceTokens(text) : []),
  ]
}

/** A text with what looks like a credential covered, at its old length so that offsets hold. */
export function coverCredentials(text: string): string {
  let covered = text
  for (const { offset, length } of credentialsIn(text)) {
    covered = covered.slice(0, offset) + '•'.repeat(length) + covered.slice(offset + length)
  }
  return covered
}

/** A header alone is in every library that reads keys; one that a key follows is a key. */
function keys(text: string): CredentialShape[] {
  return [...text.matchAll(keyHeader)].flatMap(({ 0: whole, 1: body = '', index }) => {
    const letters = body.replace(/\\[nr]|[^0-9A-Za-z/+=]/g, '')
    if (letters.length < 64 || entropyOf(letters) < 4) return []
    return {
      kind: 'a private key',
      offset: index,
      length: whole.length,
      reason: `a key of ${letters.length} characters follows its header`,
    }
  })
}

function issuedSecrets(text: string, mentions: Mentions): CredentialShape[] {
  return mentions.ofAll(issuedHints).flatMap((index) => {
    const start = text.startsWith('_pat_', index) ? startOfWord(text, index) : index
    issuedPattern.lastIndex = start
    const match = issuedPattern.exec(text)
    if (!match) return []
    const [whole] = match
    const shape = issued[match.slice(1).findIndex((group) => group !== undefined)]
    if (!isRandom(whole, 3.2) || isWords(whole)) return []
    return {
      kind: shape?.kind ?? '',
      offset: start,
      length: whole.length,
      reason: measured(whole, 'with the prefix of one'),
      ...(shape?.live ? { live: true as const } : {}),
    }
  })
}

function startOfWord(text: string, end: number): number {
  let start = end
  while (end - start < longestPrefix && /[a-z]/.test(text.charAt(start - 1))) start--
  return start
}

const sampleLogin =
  /^(?:user(?:name)?|pass(?:word|wd)?|secret|name|login|root|admin|guest|test|example|foo|bar|xxx+|\*+|\.+)$/i
const sampleHost = /(?:^|\.)(?:localhost|example(?:\.\w+)?|invalid|test|host(?:name)?|server|127\.0\.0\.1)$/i

function logins(text: string, mentions: Mentions): CredentialShape[] {
  return mentions.ofAnyCase('://').flatMap((index) => {
    if (!storeScheme.test(text.slice(Math.max(0, index - longestScheme), index))) return []
    login.lastIndex = index
    const { 0: whole, 1: user = '', 2: word = '', 3: host = '' } = login.exec(text) ?? ['']
    if (whole === '' || sampleLogin.test(word) || word === user || sampleHost.test(host)) return []
    return {
      kind: 'an address with a password in it',
      offset: index,
      length: whole.length,
      reason: `a password of ${word.length} characters stands before its host`,
    }
  })
}

function keyedLiterals(text: string, mentions: Mentions): CredentialShape[] {
  const starts = keyedHints.flatMap((word) => mentions.ofAnyCase(word)).sort((a, b) => a - b)
  return starts.flatMap((index) => {
    keyed.lastIndex = index
    const { 0: whole, 2: value = '' } = keyed.exec(text) ?? ['']
    return value !== '' && isRandom(value, isHex(value) ? 3.2 : 3.8) && isMixed(value) && !isWords(value)
      ? {
          kind: 'a secret',
          offset: index + whole.lastIndexOf(value),
          length: value.length,
          reason: measured(value, 'under a name that says so'),
        }
      : []
  })
}

/** A signed token that says of itself that it may do anything. One for anonymous visitors is meant to be public. */
function serviceTokens(text: string): CredentialShape[] {
  return [...text.matchAll(jwt)].flatMap(({ 0: whole, 1: payload = '', index }) => {
    const role = /"(?:role|scope|aud)"\s*:\s*"([^"]*(?:service|admin)[^"]*)"/i.exec(decoded(payload))
    if (!role) return []
    return {
      kind: 'a signed token of a service or administrator',
      offset: index,
      length: whole.length,
      reason: measured(whole, 'that says so of itself'),
    }
  })
}

function decoded(part: string): string {
  try {
    return atob(part.replaceAll('-', '+').replaceAll('_', '/'))
  } catch {
    return ''
  }
}

function isRandom(text: string, bits: number): boolean {
  return (
    entropyOf(text) >= bits && !/(.)\1{5}|0123456|1234567|abcdefg|xxxx|example|sample|placeholder/i.test(text)
  )
}

/** A long hexadecimal number has four bits of a letter at most. */
function isHex(text: string): boolean {
  return /^[0-9a-f]{32,}$/i.test(text)
}

/** Digits among letters of both cases, or a long hexadecimal number: no identifier, no path. */
function isMixed(text: string): boolean {
  if (isHex(text)) return true
  const digits = text.replace(/\D/g, '').length
  return digits >= 3 && /[a-z]/.test(text) && /[A-Z]/.test(text)
}

/** Words joined by a sign or a capital, as names of things are. */
function isWords(text: string): boolean {
  const parts = text.split(/[._/-]|(?<=[a-z])(?=[A-Z])/).filter((part) => part !== '')
  return (
    parts.length > 1 && parts.filter((part) => /^[A-Z]?[a-z]{2,}\d?$/.test(part)).length > parts.length / 2
  )
}

function measured(text: string, why: string): string {
  return `${text.length} characters, ${entropyOf(text).toFixed(1)} bits each, ${why}`
}
