import { placeAt } from '../../model/reading.ts'
import type { Edit } from '../../model/report.ts'
import { loadedByPages } from '../../requests/loaded-by-pages.ts'
import type { RequestPlace } from '../../requests/request.ts'
import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'
import { rewritten, textIn } from '../own-files.ts'

/** A script that pages load is none: browsers run nothing of it. */
export const brokenScript = defineCheck({
  code: 'asset/broken-script',
  severity: 'blocker',
  title: 'A script can not be run',
  keywords: ['unexpected token', 'unexpected end of input', 'syntax error', 'truncated', 'merge conflict'],
  after: ['project/needs-server', 'project/not-built', 'asset/integrity'],
  run,
})

async function run(evidence: Evidence): Promise<Cause[]> {
  return [...broken(evidence), ...brokenData(evidence), ...(await classicModules(evidence))]
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
async function classicModules(evidence: Evidence): Promise<Cause[]> {
  const { facts, requested } = evidence
  const modules = new Map(
    facts.flatMap(({ path, moduleSyntax }) => (moduleSyntax ? [[path, moduleSyntax] as const] : [])),
  )
  const causes = requested.requests.map(async ({ answer: { file }, places }): Promise<Cause[]> => {
    const syntax = file === null ? undefined : modules.get(file)
    const [place] = places.filter(({ reference: { kind, classic } }) => kind === 'script' && classic)
    if (file === null || syntax === undefined || place === undefined) return []
    const element = await elementOf(place, evidence)
    const page = element ? `${element.file}, line ${element.line}` : place.file
    return [
      {
        key: `${file} as a script`,
        impact: `The page does not start: a browser runs nothing of ${file}.`,
        cause: `${file} is a module, by its import or export, and ${place.file} loads it without type="module".`,
        places: [
          { file: place.file, offset: place.reference.offset, length: place.reference.length },
          { file, ...syntax },
        ],
        fix: {
          steps: [
            `In ${page}, write  type="module"  into the script element that loads ${file}, or let the build write a script that is no module.`,
            rebuild(evidence),
          ],
          edits: element ? [element] : [],
        },
      },
    ]
  })
  return (await Promise.all(causes)).flat()
}

/** What begins a script element, up to the URL that it loads, and the kind that it may say there. */
const opening = /<script\b[^<>]{0,300}$/i
const saidKind = /\stype\s{0,3}=\s{0,3}(?:"[^"]{0,80}"|'[^']{0,80}'|[^\s"'>]{1,80})/i

/** The edit that makes a script element load a module, in the page of the sources that has it, or in one that nothing builds. */
async function elementOf({ file, reference }: RequestPlace, evidence: Evidence): Promise<Edit | null> {
  const { sources } = evidence
  const found = sources.findUrls(reference.raw).flatMap(({ file: path, offset }): Edit[] => {
    const text = /\.html?$/.test(path) ? (sources.texts.get(path) ?? '') : ''
    const part = partToChange(text, offset)
    return part === null ? [] : [{ ...placeAt(path, text, part.offset), ...part.edit }]
  })
  if (found.length > 0) return found.length === 1 ? (found[0] ?? null) : null
  const [, text] = await textIn(file, evidence)
  const part = partToChange(text ?? '', reference.offset)
  if (part === null) return null
  const { offset, edit } = part
  const own = await rewritten([{ file, offset, length: edit.instead.length }], () => edit.write, evidence)
  return own?.edits[0] ?? null
}

/** What of a script element gives way to the kind of a module, by where its URL stands in a page. */
function partToChange(
  page: string,
  url: number,
): { offset: number; edit: { instead: string; write: string } } | null {
  const begun = opening.exec(page.slice(Math.max(0, url - 400), url))
  if (begun === null) return null
  const [tag] = begun
  const said = saidKind.exec(tag)
  const offset = url - tag.length + (said?.index ?? 0)
  const name = tag.slice(0, '<script'.length)
  return said
    ? { offset, edit: { instead: said[0], write: ' type="module"' } }
    : { offset, edit: { instead: name, write: `${name} type="module"` } }
}
