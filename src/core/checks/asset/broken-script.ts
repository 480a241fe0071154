import { loadedByPages } from '../../requests/loaded-by-pages.ts'
import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'

/** A script that pages load is none: browsers run nothing of it. */
export const brokenScript = defineCheck({
  code: 'asset/broken-script',
  severity: 'blocker',
  title: 'A script can not be run',
  keywords: ['unexpected token', 'unexpected end of input', 'syntax error', 'truncated', 'merge conflict'],
  after: ['project/needs-server', 'project/not-built', 'asset/integrity'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const { facts, requested } = evidence
  const loaded = loadedByPages(facts, requested.loads)
  return facts.flatMap(({ path, breaks }): Cause[] => {
    if (breaks === null || !requested.reached.has(path)) return []
    const atOnce = loaded.has(path)
    const { isCut, offset, length } = breaks
    return [
      {
        key: path,
        severity: atOnce ? undefined : 'caution',
        impact: atOnce
          ? `The page does not start: a browser runs nothing of ${path}.`
          : `What needs ${path} does not work: a browser runs nothing of it.`,
        cause: isCut
          ? `${path} ends in the middle of a statement: the file is not whole.`
          : `${path} stops being a script at this place, and a browser takes all of a script or nothing.`,
        places: [{ file: path, offset, length }],
        fix: isCut
          ? ['See that the disk is not full and that the copy ends without an error.', rebuild(evidence)]
          : [
              'Correct what stands at this place in the source: the marks of a merge, or a placeholder that nothing filled in.',
              rebuild(evidence),
            ],
      },
    ]
  })
}
