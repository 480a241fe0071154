import { extensionOf } from '../../model/folder.ts'
import type { Check } from '../check.ts'
import { effectOf, missingFiles } from '../missing-files.ts'

/** A file is missing, and the host's fallback hides it behind a page. */
export const answeredWithPage: Check = {
  code: 'asset/answered-with-page',
  severity: 'blocker',
  title: 'A page comes in place of a file',
  keywords: ['MIME type', 'Unexpected token <', 'module script', 'text/html', 'single-page fallback'],
  meaning:
    'The folder does not hold a file that the build requests, and the host answers unknown paths with the entry document ' +
    'and status 200. No request fails, and yet the browser gets a page where it needs a script, a style sheet or a ' +
    'picture, and refuses it.',
  example:
    'The page requests /crossings/assets/Sailing-BSKsdRK0.js. The host sends index.html with status 200, and the ' +
    'console says that a module script has the type text/html.',
  fixes: {
    any:
      'Build again into an empty folder and ship all of it. If the host allows, let its fallback answer only paths ' +
      'without a file extension, so that a missing file answers 404.',
  },
  after: ['base/wrong-path', 'base/relative-at-depth', 'asset/letter-case', 'asset/withheld'],
  run: (evidence) => {
    const hidden = evidence.failing.filter(({ answer }) => answer.by === 'fallback')
    return missingFiles(hidden, evidence, (what, are, them, first) => ({
      impact: effectOf([first]),
      cause:
        `${what} ${are} requested, and ${evidence.folder.name} does not hold ${them}. ` +
        `The host sends ${first.answer.file} instead, with status ${first.answer.status}${refusal(first.pathname)}.`,
    }))
  },
}

function refusal(pathname: string): string {
  return /^(?:m?js|css)$/.test(extensionOf(pathname)) ? ', and the browser refuses its type' : ''
}
