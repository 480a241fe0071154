import { extensionOf } from '../../model/folder.ts'
import { defineCheck } from '../check.ts'
import { effectOf, missingFiles } from '../missing-files.ts'

/** A file is missing, and the host's fallback hides it behind a page. */
export const answeredWithPage = defineCheck({
  code: 'asset/answered-with-page',
  severity: 'blocker',
  title: 'A page comes in place of a file',
  keywords: ['MIME type', 'Unexpected token <', 'module script', 'text/html', 'single-page fallback'],
  after: [
    'base/wrong-path',
    'base/relative-at-depth',
    'asset/letter-case',
    'asset/withheld',
    'endpoint/proxy-only',
  ],
  run: (evidence) => {
    const hidden = evidence.failing.filter(({ answer }) => answer.by === 'fallback')
    return missingFiles(hidden, evidence, (what, are, them, first) => ({
      impact: effectOf([first]),
      cause:
        `${what} ${are} requested, and ${evidence.folder.name} does not hold ${them}. ` +
        `The host sends ${first.answer.file} instead, with status ${first.answer.status}${refusal(first.pathname)}.`,
    }))
  },
})

function refusal(pathname: string): string {
  return /^(?:m?js|css)$/.test(extensionOf(pathname)) ? ', and the browser refuses its type' : ''
}
