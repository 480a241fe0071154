import { describe, expect, test } from 'vitest'
import { addressKind, hasDevelopmentPort } from './address.ts'
import { fingerprint, isDigested, isHashed, withoutHash } from './fingerprint.ts'
import { Mask } from './mask.ts'
import { ordered } from './ordered.ts'
import { joinRoute, parametersOf, plainPattern } from './source-route.ts'
import { base64SpellingsOf, spellingsOf } from './spellings.ts'

const own = 'https://skerryline.example'

test.each<[string, ReturnType<typeof addressKind>]>([
  ['https://skerryline.example/x', 'own origin'],
  ['wss://skerryline.example/x', 'own origin'],
  ['http://skerryline.example/x', 'reserved name'],
  ['https://skerryline.example:8443/', 'reserved name'],
  ['http://localhost:5173', 'loopback'],
  ['http://api.localhost', 'loopback'],
  ['http://notlocalhost.net', 'other origin'],
  ['http://localhost.evil.net', 'other origin'],
  ['http://notlocalhost', 'local name'],
  ['http://127.0.0.1', 'loopback'],
  ['http://127.8.9.10', 'loopback'],
  ['http://2130706433/', 'loopback'],
  ['http://128.0.0.1', 'other origin'],
  ['http://0.0.0.0:80', 'loopback'],
  ['http://[::1]:3000', 'loopback'],
  ['http://[::]', 'loopback'],
  ['http://[::ffff:127.0.0.1]', 'loopback'],
  ['http://[::2]', 'other origin'],
  ['http://10.0.0.1', 'private network'],
  ['http://11.0.0.1', 'other origin'],
  ['http://172.15.0.1', 'other origin'],
  ['http://172.16.0.1', 'private network'],
  ['http://172.31.255.255', 'private network'],
  ['http://172.32.0.1', 'other origin'],
  ['http://192.168.0.1', 'private network'],
  ['http://192.169.0.1', 'other origin'],
  ['http://100.63.0.1', 'other origin'],
  ['http://100.64.0.1', 'private network'],
  ['http://100.127.0.1', 'private network'],
  ['http://100.128.0.1', 'other origin'],
  ['http://169.254.1.1', 'private network'],
  ['http://169.253.1.1', 'other origin'],
  ['http://[fc00::1]', 'private network'],
  ['http://[fd12::1]', 'private network'],
  ['http://[fe80::1]', 'private network'],
  ['http://[febf::1]', 'private network'],
  ['http://[fec0::1]', 'other origin'],
  ['http://[2001:db8::1]', 'other origin'],
  ['http://api', 'local name'],
  ['http://api.internal', 'local name'],
  ['http://printer.local.', 'local name'],
  ['http://local.net', 'other origin'],
  ['http://x.home.arpa', 'local name'],
  ['http://api.test', 'reserved name'],
  ['http://example.com', 'reserved name'],
  ['http://example.com.net', 'other origin'],
  ['http://contest', 'local name'],
  ['https://your-host.net/', 'unfinished'],
  ['https://<host>/', 'unfinished'],
  ['https://todo/', 'unfinished'],
  ['https://{s}.tiles.skerryline.net/{z}/{x}/{y}.png', 'other origin'],
  ['https://api.skerryline.net/todo', 'other origin'],
  ['mailto:https://todo/', null],
  ['ftp://x.net', null],
  ['x.net', null],
  ['/v1', null],
])('%s is %s', (url, kind) => {
  expect(addressKind(url, own)).toBe(kind)
})

test('ports of development servers', () => {
  expect(hasDevelopmentPort('http://x.net:5173/')).toBe(true)
  expect(hasDevelopmentPort('http://x.net:5175/')).toBe(false)
  expect(hasDevelopmentPort('nothing')).toBe(false)
})

test('a fingerprint is of sixteen digits, the same each time, and another for another cause', () => {
  expect(fingerprint('a/b', 'https://x.test/', 'key')).toBe(fingerprint('a/b', 'https://x.test/', 'key'))
  const prints = ['key', 'kex', 'key ', ''].map((key) => fingerprint('a/b', 'https://x.test/', key))
  expect(new Set(prints).size).toBe(4)
  for (const print of prints) expect(print).toMatch(/^[\da-f]{16}$/)
})

test.each([
  ['assets/app-AbCdEf12.js', true, 'assets/app-*.js'],
  ['app.4f7d20aa.css', true, 'app.*.css'],
  ['assets/application.js', false, 'assets/application.js'],
])('%s has a hash: %s', (path, hashed, plain) => {
  expect(isHashed(path)).toBe(hashed)
  expect(withoutHash(path)).toBe(plain)
})

test.each([
  ['assets/ferry.44cde5df21fda08a56bf849bebf5d4d1.png', true],
  ['44cde5df21fda08a.css', true],
  ['assets/app-AbCdEf12.js', false],
  ['reports/2026112712345678.json', false],
  ['feedfacedeadbeef.json', false],
])('%s has a digest: %s', (path, digested) => {
  expect(isDigested(path)).toBe(digested)
})

describe('values hidden', () => {
  const mask = new Mask(
    [
      ['TOKEN', 'tok/en value'],
      ['SITE', 'https://skerryline.example/'],
      ['API', 'http://localhost:8787/v1?key=1'],
      ['BARE', 'http://localhost:3000'],
    ],
    ['https://skerryline.example/crossings/'],
  )
  test.each([
    ['x tok/en value y', 'x ${TOKEN} y'],
    ['tok%2Fen%20value', '${TOKEN}'],
    ['tok%2fen%20value', '${TOKEN}'],
    ['tok\\/en value', '${TOKEN}'],
    [`data:${btoa('tok/en value')}`, /^data:\$\{TOKEN\}/],
    [btoa(`a${'tok/en value'}b`), /\$\{TOKEN\}/],
    [btoa(`ab${'tok/en value'}`), /\$\{TOKEN\}/],
    ['https://skerryline.example/', 'https://skerryline.example/'],
    ['http://localhost:8787/v1?key=1', 'http://localhost:8787/${API}'],
    ['http://localhost:3000', 'http://localhost:3000'],
    ['tok/en', 'tok/en'],
  ])('%s', (text, expected) => {
    expect(mask.named(text)).toMatch(
      expected instanceof RegExp
        ? expected
        : new RegExp(`^${expected.replace(/[$*+?.()[\]{}|\\/^]/g, '\\$&')}$`),
    )
  })
  test('in long texts and in whole reports, keys too', () => {
    const long = `${'x'.repeat(3_000)}tok/en value`
    expect(mask.named(long)).toBe(`${'x'.repeat(3_000)}\${TOKEN}`)
    expect(mask.deep({ 'tok/en value': ['tok/en value', 1, null] })).toEqual({
      '${TOKEN}': ['${TOKEN}', 1, null],
    })
  })
  test('covered at their length', () => {
    expect(mask.cover('a tok/en value b')).toBe(`a ${'•'.repeat(12)} b`)
    expect(mask.longest).toBeGreaterThanOrEqual('http://localhost:8787/v1?key=1'.length)
  })
})

test('spellings of base64 hold only what the value decides', () => {
  for (const before of ['', 'a', 'ab'])
    for (const after of ['', 'z', 'zz']) {
      const whole = btoa(`${before}a-longer-value${after}`)
      expect(
        base64SpellingsOf('a-longer-value').some((form) => whole.includes(form)),
        whole,
      ).toBe(true)
    }
  for (const form of base64SpellingsOf('a-longer-value'))
    expect(['', 'a', 'ab'].some((before) => btoa(`${before}a-longer-value?`).includes(form))).toBe(true)
  expect(base64SpellingsOf('short')).toEqual([])
  expect(spellingsOf('a"b')).toContain('a\\"b')
})

test('parameters and plain patterns of routes', () => {
  expect(parametersOf('/a/:id/b/:slug')).toEqual(['id', 'slug'])
  expect(plainPattern('/a/:id(\\d+)/b?/c+')).toBe('/a/:id/c')
  expect(joinRoute('/a/', './b', '', 'c/')).toBe('/a/b/c')
})

test('a list is put in order, and stays as it is where nothing is said', () => {
  const by = (before: Record<string, string[]>): string[] =>
    ordered(['a', 'b', 'c', 'd'], {
      what: 'thing',
      nameOf: (each) => each,
      titleOf: (each) => each,
      before: (each) => before[each] ?? [],
      relation: 'is after',
    })
  expect(by({})).toEqual(['a', 'b', 'c', 'd'])
  expect(by({ a: ['d'] })).toEqual(['d', 'a', 'b', 'c'])
  expect(by({ a: ['*'], b: ['*', 'a'] })).toEqual(['c', 'd', 'a', 'b'])
  expect(by({ a: ['a'] })).toEqual(['a', 'b', 'c', 'd'])
})
