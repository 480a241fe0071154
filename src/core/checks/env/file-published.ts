import { nameOf } from '../../model/folder.ts'
import type { Cause, Check, Evidence } from '../check.ts'

/** An environment file is in the published folder. */
export const filePublished: Check = {
  code: 'env/file-published',
  severity: 'blocker',
  title: 'An environment file is in the published folder',
  keywords: ['.env', 'dotenv'],
  meaning:
    'An environment file is in the folder that is published, and the host sends it to whoever requests its name. Programs that ' +
    'look for such files ask every site for them.',
  example: 'https://skerryline.example/crossings/.env answers with the whole file.',
  fixes: {
    any: 'Take the file out of the directory that the build copies as it is, rebuild, and replace every value in it.',
  },
  after: [],
  run,
}

const environmentFile = /^\.env(?:\.(?!example|sample|template|dist|defaults$)[\w.-]+)?$/

function run({ facts, host, site, folder }: Evidence): Cause[] {
  return facts.flatMap(({ path }): Cause[] => {
    const name = nameOf(path)
    if (!environmentFile.test(name) || host.withheld.some((start) => name.startsWith(start))) return []
    return [
      {
        key: path,
        impact: `Anybody can read ${site.address}${path}.`,
        cause: `${folder.name} holds ${path}, and the host answers with it.`,
        places: [{ file: path, offset: null, length: 0, request: site.address + path, status: 200 }],
        fix: {
          steps: [
            `Take ${name} out of what the build copies, and out of ${folder.name}.`,
            'If this folder was ever published: replace the values in it where they give access.',
          ],
        },
      },
    ]
  })
}
