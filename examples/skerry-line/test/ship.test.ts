import { join } from 'node:path'
import { expect, test } from 'vitest'
import 'wardoscope/vitest'

/** The build of this site that `npm run demo` makes. */
const sound = join(import.meta.dirname, '../../../dist/demo/sound')
const at = { site: 'https://skerryline.example/crossings/', host: 'fallback' } as const

test('the site may ship to its address', async () => {
  await expect(sound).toBeClearToShip(at)
})

test('and not to the top of its domain, for which it was not built', async () => {
  await expect(sound).not.toBeClearToShip({ ...at, site: 'https://skerryline.example/' })
})
