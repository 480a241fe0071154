import { expect, test } from 'vitest'
import { presetNamed } from '../host/presets.ts'
import { MemoryFolder } from '../model/memory-folder.ts'
import { parseSite } from '../model/site.ts'
import { check } from '../pipeline/check.ts'
import { lookAtLive } from './look.ts'
import type { LiveAsker, LiveReply } from './reply.ts'

const page = '<!doctype html><title>Skerry Line</title>'
const bytes = new TextEncoder().encode(page)
const answered = (status: number, headers: Record<string, string> = {}, body = bytes): LiveReply => ({
  status,
  headers: new Map(Object.entries(headers)),
  body,
  isWhole: true,
})

/** What is found when plain http answers so, and https as it should. */
async function found(plain: LiveReply | string): Promise<[string, string][]> {
  const ask: LiveAsker = async ({ url }) =>
    url.startsWith('http:') ? plain : answered(200, { 'content-type': 'text/html', 'content-encoding': 'br' })
  const report = await check(new MemoryFolder({ 'index.html': page }), {
    site: parseSite('https://skerryline.example/'),
    host: presetNamed('files'),
    live: (stage) => lookAtLive(stage, { ask, atOnce: 2, asksPlain: true }),
  })
  return report.findings.map(({ code, cause }) => [code, cause])
}

test.each<[string, LiveReply | string, string | null]>([
  ['is sent on', answered(301, { location: 'https://skerryline.example/' }), null],
  [
    'answers itself',
    answered(200),
    'Plain http answers 200 itself, and sends nobody to https://skerryline.example.',
  ],
  [
    'is sent to another host',
    answered(302, { location: 'https://www.skerryline.example/' }),
    'Plain http answers 302 to https://www.skerryline.example/, and sends nobody to https://skerryline.example.',
  ],
  [
    'is sent to a name that begins like it',
    answered(301, { location: 'https://skerryline.example.stranger.test/' }),
    'Plain http answers 301 to https://skerryline.example.stranger.test/, and sends nobody to https://skerryline.example.',
  ],
  ['is refused', 'nothing listens there', 'Plain http gives no answer: nothing listens there.'],
])('plain http that %s', async (_, plain, said) => {
  expect(await found(plain)).toEqual(said === null ? [] : [['live/plain-http', said]])
})
