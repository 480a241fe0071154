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
  return [...broken(evidence), ...brokenData(evidence), ...classicModules(evidence)]
}

function broken(evidence: Evidence): Cause[] {
  const { facts, requested } = evidence
  const loaded = loadedByPages(facts, requested.loads)
  return facts.flatMap(({ path, kind, breaks }): Cause[] => {
    if (breaks === null || kind !== 'script' || !requested.reached.has(path)) return []
    const { isCut, offset, length } = breaks
    const atOnce = loaded.has(path)
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

/** JSON that something names, and that no reader of JSON takes. */
function brokenData(evidence: Evidence): Cause[] {
  const { facts, requested } = evidence
  return facts.flatMap(({ path, kind, breaks }): Cause[] => {
    if (breaks === null || kind !== 'data' || !requested.reached.has(path)) return []
    const { isCut, offset, length } = breaks
    return [
      {
        key: path,
        severity: 'caution',
        title: 'A data file can not be read',
        impact: `What needs ${path} does not work: a browser can not read it as JSON.`,
        cause: isCut
          ? `${path} ends in the middle of a value: the file is not whole.`
          : `${path} stops being JSON at this place, and a browser takes all of it or nothing.`,
        places: [{ file: path, offset, length }],
        fix: [
          isCut
            ? 'See that what writes the file ends without an error.'
            : 'Correct what stands at this place in the source of the file: the marks of a merge, or a comma too many.',
          rebuild(evidence),
        ],
      },
    ]
  })
}

/** Modules that a page loads as scripts of the older kind: their first import or export is an error there. */
function classicModules(evidence: Evidence): Cause[] {
  const { facts, requested, sources } = evidence
  const modules = new Map(
    facts.flatMap(({ path, moduleSyntax }) => (moduleSyntax ? [[path, moduleSyntax] as const] : [])),
  )
  return requested.requests.flatMap(({ answer: { file }, places }): Cause[] => {
    const syntax = file === null ? undefined : modules.get(file)
    const [place] = places.filter(({ reference: { kind, classic } }) => kind === 'script' && classic)
    if (file === null || syntax === undefined || place === undefined) return []
    const source = sources.find(place.reference.raw)
    const page = source && /\.html?$/.test(source.file) ? `${source.file}, line ${source.line}` : place.file
    return [
      {
        key: `${file} as a script`,
        impact: `The page does not start: a browser runs nothing of ${file}.`,
        cause: `${file} is a module, by its import or export, and ${place.file} loads it without type="module".`,
        places: [
          { file: place.file, offset: place.reference.offset, length: place.reference.length },
          { file, ...syntax },
        ],
        fix: [
          `In ${page}, write  type="module"  into the script element that loads ${file}, or let the build write a script that is no module.`,
          rebuild(evidence),
        ],
      },
    ]
  })
}
