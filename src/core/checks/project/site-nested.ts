import { joinPath } from '../../model/folder.ts'
import { type Cause, defineCheck, type Evidence } from '../check.ts'
import { nestedSites } from '../nested-site.ts'

/** The site is in a directory below the folder that would be published. */
export const siteNested = defineCheck({
  code: 'project/site-nested',
  severity: 'blocker',
  title: 'The site is deeper in this folder',
  keywords: ['output directory', 'wrong folder', 'monorepo'],
  after: ['project/needs-server'],
  run,
})

function run({ folder, facts, requested, failing, unanswered, survey }: Evidence): Cause[] {
  const [first, ...others] = nestedSites(facts, requested.index)
  // Several of equal depth are a collection of sites, and which is meant is not ours to say.
  if (first === undefined || others.length > 0 || unanswered.length === 0) return []
  const inside = joinPath(folder.path === '.' ? '' : folder.path, first)
  const { publishDirectory } = survey
  return [
    {
      key: first,
      impact: "An error page, or a list of files, at the site's own address.",
      cause: `${folder.name} holds no page; the entry page is ${inside}/index.html.`,
      places: [{ file: `${first}/index.html`, offset: 0, length: 1 }],
      source: publishDirectory && 'file' in publishDirectory.from ? publishDirectory.from : null,
      fix: [`Publish ${inside} instead of ${folder.name}.`],
      claims: [...unanswered, ...failing],
    },
  ]
}
