import { expect, test } from 'vitest'
import { page } from '../../../test/support/cases.ts'
import { presetNamed } from '../host/presets.ts'
import { MemoryFolder } from '../model/memory-folder.ts'
import { parseSite } from '../model/site.ts'
import { behindBase } from './behind-base.ts'
import { check } from './check.ts'

const site = parseSite('https://skerryline.example/b/')
const options = { site, host: presetNamed('files') }

/** A project that is built for a base path, whose page leads to one that is not there. */
function builtFor(base: string): MemoryFolder {
  return new MemoryFolder({
    'package.json': JSON.stringify({ scripts: { build: `vite build --base ${base}` } }),
    'index.html': page('<script type="module" src="/app.js"></script>'),
    'vite.config.js': 'export default {}',
    'app.js': '',
    'dist/index.html': page(
      `<script type="module" src="${base}app.js"></script><a href="${base}gone/">Gone</a>`,
    ),
    'dist/app.js': '',
  })
}

test('what a wrong base path hides is known by the same name as where it is right', async () => {
  const [before, after] = [await check(builtFor('/'), options), await check(builtFor('/b/'), options)]
  const broken = after.findings.map(({ code, fingerprint }) => [code, fingerprint])
  expect(broken.map(([code]) => code)).toEqual(['route/broken-link'])
  expect(before.findings.map(({ code }) => code)).not.toContain('route/broken-link')
  const hidden = await behindBase(builtFor('/'), options, before)
  expect(hidden.map(({ code, fingerprint }) => [code, fingerprint])).toEqual(broken)
  expect(await behindBase(builtFor('/b/'), options, after)).toEqual([])
})
