import { directoryOf } from '../../model/folder.ts'
import { counted, groupedBy, safeDecode } from '../../model/text.ts'
import type { Request } from '../../requests/request.ts'
import { type Cause, defineCheck, type Evidence, placesOf } from '../check.ts'
import { effectOf, severityOf } from '../missing-files.ts'

/** The folder holds the file, and the host does not serve names like it. */
export const withheld = defineCheck({
  code: 'asset/withheld',
  severity: 'blocker',
  title: 'The host keeps files of this name back',
  keywords: ['underscore', 'dot files', 'hidden files', '403', 'deny', 'forbidden'],
  after: ['project/misplaced'],
  run: (evidence) => [...byName(evidence), ...byRule(evidence)],
})

/** What the server's own configuration does not send, though it is there. */
function byRule({ host, failing, folder, site, requested }: Evidence): Cause[] {
  const isThere = ({ pathname }: Request): boolean =>
    pathname.startsWith(site.base) && requested.index.has(safeDecode(pathname.slice(site.base.length)))
  const refused = host.server ? failing.filter((each) => each.answer.status >= 400 && isThere(each)) : []
  const groups = groupedBy(
    refused,
    ({ answer: { status, rule } }) => `${status}: ${rule.replace(/^nothing: /, '')}`,
  )
  return [...groups].map(([said, requests]) => ({
    key: said,
    title: 'The server does not send files that are there',
    severity: severityOf(requests),
    impact: effectOf(requests),
    cause: `${counted(requests.length, 'file')} ${requests.length === 1 ? 'is' : 'are'} in ${folder.name}, and ${host.name} answers ${requests[0]?.pathname} with ${said}.`,
    places: placesOf(requests),
    fix: [
      'Change that rule so that files which are there are sent before it answers.',
      'Then let the server read its configuration again.',
    ],
    claims: requests,
  }))
}

function byName(evidence: Evidence): Cause[] {
  const groups = new Map<string, Request[]>()
  for (const request of evidence.failing) {
    if (request.answer.by !== 'withheld' || request.target === null) continue
    const key = withheldStep(request, evidence)
    groups.set(key, [...(groups.get(key) ?? []), request])
  }
  return [...groups].map(([step, requests]) => {
    const severity = severityOf(requests)
    return {
      key: step,
      severity,
      impact: effectOf(requests),
      cause: `${counted(requests.length, 'file')} at ${step} ${requests.length === 1 ? 'is' : 'are'} in ${evidence.folder.name}, and this host serves no name that begins with "${step.charAt(step.lastIndexOf('/', step.length - 2) + 1)}".`,
      places: placesOf(requests),
      fix: [
        'Tell the host to serve all names, or give what is kept back another name and rebuild.',
        `If the host serves ${step}, take its beginning out of "withheld" in the host file.`,
      ],
      claims: requests,
    }
  })
}

/** The part of the path that is kept back, down to the step that does it. */
function withheldStep({ pathname }: Request, { site, host }: Evidence): string {
  const steps = safeDecode(pathname.slice(site.base.length)).split('/')
  const at = steps.findIndex((step) => host.withheld.some((start) => step.startsWith(start)))
  const path = steps.slice(0, at + 1).join('/')
  return directoryOf(`${path}/x`) !== '' && at < steps.length - 1 ? `${path}/` : path
}
