import { expect, test } from 'vitest'
import { contentTypeOf } from './content-type.ts'

test.each([
  ['a.wasm', 'application/wasm'],
  ['a.mjs', 'text/javascript'],
  ['a.webmanifest', 'application/manifest+json'],
  ['a.avif', 'image/avif'],
  ['a.woff2', 'font/woff2'],
  ['a.js.map', 'application/json'],
  ['a.svg', 'image/svg+xml'],
  ['a.ico', 'image/x-icon'],
  ['x/video.m3u8', 'application/vnd.apple.mpegurl'],
  ['a.unknown', null],
  ['a.constructor', null],
])('%s is sent as %s', (path, type) => {
  expect(contentTypeOf(path)).toBe(type)
})
