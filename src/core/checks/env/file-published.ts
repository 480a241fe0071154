import { nameOf } from '../../model/folder.ts'
import { type Cause, defineCheck, type Evidence } from '../check.ts'
import { unpublish } from '../unpublish.ts'

/** An environment file is in the published folder. */
export const filePublished = defineCheck({
  code: 'env/file-published',
  severity: 'blocker',
  title: 'An environment file is in the published folder',
  keywords: ['.env', 'dotenv'],
  run,
})

const environmentFile = /^\.env(?:\.(?!example|sample|template|dist|defaults$)[\w.-]+)?$/

async function run(evidence: Evidence): Promise<Cause[]> {
  const { facts, host, site, folder } = evidence
  const found: Cause[] = []
  for (const { path } of facts) {
    const name = nameOf(path)
    if (!environmentFile.test(name) || host.withheld.some((start) => name.startsWith(start))) continue
    found.push({
      key: path,
      impact: `Anybody can read ${site.address}${path}.`,
      cause: `${folder.name} holds ${path}, and the host answers with it.`,
      places: [{ file: path, offset: null, length: 0, request: site.address + path, status: 200 }],
      fix: await unpublish([path], evidence, [
        'If this folder was ever published: replace the values in it where they give access.',
      ]),
    })
  }
  return found
}
