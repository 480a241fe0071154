import { describe, expect, test } from 'vitest'
import { checkAlone } from '../../../../test/support/cases.ts'
import { recorded } from '../../../../test/support/releases.ts'
import { presetNamed } from '../../host/presets.ts'
import { MemoryFolder } from '../../model/memory-folder.ts'
import { parseSite } from '../../model/site.ts'

const site = parseSite('https://skerryline.example/crossings/')

describe('checks of a comparison', () => {
  const page = '<!doctype html><script type="module" src="/crossings/a-AbCdEf12.js"></script>'
  const files = {
    'index.html': page,
    'a-AbCdEf12.js': 'import("./b-AbCdEf34.js")',
    'b-AbCdEf34.js': '1',
  }
  const codesFor = async (later: Record<string, string>): Promise<string[]> => {
    const earlier = await recorded(new MemoryFolder(files), 'files')
    const host = presetNamed('files')
    const { findings } = await checkAlone(['delivery/', 'fresh/same-as-shipped'], new MemoryFolder(later), {
      site,
      host,
      earlier,
    })
    return findings.map(({ code, severity, count }) => `${code} ${severity} ×${count}`)
  }
  test.each<[string, Record<string, string>, string[]]>([
    ['the same folder', files, ['fresh/same-as-shipped caution ×1']],
    [
      'the old chunk is gone',
      {
        'index.html': `${page.replace('a-AbCdEf12', 'a-XyZwVu98')}`,
        'a-XyZwVu98.js': 'import("./b-XyZwVu76.js")',
        'b-XyZwVu76.js': '2',
      },
      ['delivery/chunks-gone caution ×1', 'delivery/purge note ×2'],
    ],
    [
      'other content under a name with a hash',
      { ...files, 'b-AbCdEf34.js': '2' },
      ['delivery/purge caution ×1', 'delivery/purge note ×1'],
    ],
    ['only a page changed', { ...files, 'index.html': `${page}<p>` }, ['delivery/purge note ×2']],
  ])('%s', async (_, later, expected) => {
    expect(await codesFor(later)).toEqual(expected)
  })
})
