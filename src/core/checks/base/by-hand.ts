import type { Edit } from '../../model/report.ts'
import { groupedBy } from '../../model/text.ts'
import type { SourceMatch } from '../../project/sources/sources.ts'
import { type CauseFix, type Evidence, rebuild } from '../check.ts'
import { correctInTemplate, readOf } from './in-template.ts'

/**
 * How URLs that leave the base path out are corrected: every line of the sources that writes one, with the expression of the framework
 * for the base path where it has one and code can hold it, else with the path itself.
 * @param written the URLs, each with the built file that it stands in
 * @param prefix the path that these URLs begin with in the place of the base path
 * @param isMeant which of the places where a source writes one are meant, by the text before it
 */
export async function correctByHand(
  written: readonly WrittenUrl[],
  prefix: string,
  evidence: Evidence,
  isMeant: (before: string) => boolean = () => true,
): Promise<CauseFix> {
  const { sources, survey, site } = evidence
  const helper = survey.definition?.fixes.publicUrl
  const builtIn = groupedBy(written, ({ url }) => url)
  const urls = [...builtIn.keys()]
  const places = urls
    .slice(0, mostUrls)
    .flatMap((url) => writtenByHand(url, evidence).map((at) => ({ url, at })))
    .filter(({ url, at }) => mayBecome(at.file, builtIn.get(url) ?? []))
    .filter(({ at }) =>
      isMeant(sources.texts.get(at.file)?.slice(Math.max(0, at.offset - 400), at.offset) ?? ''),
    )
    .slice(0, mostPlaces)
  if (places.length === 0)
    return {
      steps: [
        `Put the base path before ${urls[0] ?? 'the URL'}: import the file, or use what the framework gives for it.`,
        rebuild(evidence),
      ],
    }
  const copied = helper ? await copiedAmong(places, builtIn, evidence) : new Set<string>()
  const edits: Edit[] = []
  const all = places.flatMap(({ url, at }) => {
    const where = `In ${at.file}, line ${at.line},`
    if (!helper || !takesExpressions.test(at.file) || copied.has(at.file)) {
      const write = `${site.base}${url.startsWith(prefix) ? url.slice(prefix.length) : url.replace(/^\//, '')}`
      edits.push({ file: at.file, line: at.line, column: at.column, instead: url, write })
      return `${where} write  ${write}  in place of ${url}.`
    }
    const inTemplate = correctInTemplate(sources.texts.get(at.file) ?? '', at, url, readOf(helper.write('')))
    if (inTemplate) {
      for (const edit of inTemplate.edits) if (!isAmong(edits, edit)) edits.push(edit)
      return inTemplate.steps
    }
    const write = helper.write(url.replace(/^\//, ''))
    // What must be imported first is for a person: where imports stand is their matter.
    if (helper.from === undefined)
      edits.push({ file: at.file, line: at.line, column: at.column, instead: url, write })
    // In markup of other languages an expression is written in another way.
    if (!/\.[cm]?[jt]sx?$/.test(at.file))
      return `${where} put the base path before ${url}, in code  ${write}.`
    return `${where} write  ${write}  in place of ${url}${helper.from === undefined ? '' : `, with  ${helper.from}`}.`
  })
  const steps = [...new Set(all)]
  const more = steps.length - mostSteps
  const shown =
    more > 1 ? [...steps.slice(0, mostSteps), `And in the same way at ${more} more places.`] : steps
  return { steps: [...shown, rebuild(evidence)], edits }
}

function isAmong(edits: readonly Edit[], { file, line, column }: Edit): boolean {
  return edits.some((each) => each.file === file && each.line === line && each.column === column)
}

/** Where sources write a URL, in the texts too that the builder leaves as they are. */
export function writtenByHand(url: string, evidence: Evidence): SourceMatch[] {
  const { sources, survey } = evidence
  const keeps = survey.definition?.fixes.keeps
  const inProse = keeps ? sources.findInProse(url).filter(({ file }) => keeps.test(file)) : []
  return [...sources.findUrls(url), ...inProse].filter((at) => !isRebasedPicture(at, evidence))
}

/** A picture of Markdown's own notation, which the builder's reader of Markdown puts the base path before. */
function isRebasedPicture(at: SourceMatch, evidence: Evidence): boolean {
  return (
    evidence.survey.definition?.fixes.rebasesPictures === true &&
    /!\[[^\]\n]{0,200}\]\(\s{0,3}<?$/.test(textBefore(at, evidence))
  )
}

function textBefore({ file, offset }: SourceMatch, { sources }: Evidence): string {
  return sources.texts.get(file)?.slice(Math.max(0, offset - 300), offset) ?? ''
}

/** Languages in which a builder puts the base path before URLs by itself, where nothing else is known of it. */
const rebased =
  /\.(?:html?|css|s[ac]ss|less|vue|mdx?|njk|liquid|ejs|hbs|handlebars|mustache|twig|pug|g[jt]s|marko|razor)$/

/** Where markup or a style says what is loaded. In an expression of a template, a filter may put the base path before it. */
const inMarkup = /(?:\]\(\s*<?|\]:\s*<?|\b[\w-]+\s*=\s*["']?|url\(\s*["']?)$/

/** Whether what a source writes stays as it is, however often it is built. */
export function staysAsWritten(at: SourceMatch, evidence: Evidence): boolean {
  if (!rebased.test(at.file)) return true
  if (evidence.survey.definition?.fixes.keeps?.test(at.file) !== true) return false
  return inMarkup.test(textBefore(at, evidence)) && !isRebasedPicture(at, evidence)
}

/** Sources that the build copies as they are: nothing puts a value in the place of an expression there. */
async function copiedAmong(
  places: readonly { readonly url: string; readonly at: SourceMatch }[],
  builtIn: ReadonlyMap<string, readonly WrittenUrl[]>,
  evidence: Evidence,
): Promise<ReadonlySet<string>> {
  const copies = places.flatMap(({ url, at }) =>
    (builtIn.get(url) ?? []).flatMap(({ file }) =>
      takesExpressions.test(file) && at.file.endsWith(`/${file}`) ? [file] : [],
    ),
  )
  const sources = await Promise.all([...new Set(copies)].map((file) => evidence.copiedFrom(file)))
  return new Set(sources.filter((file) => file !== null))
}

/** A URL of a built file. */
export interface WrittenUrl {
  readonly url: string
  readonly file: string
}

/** Whether a source is of the kind that ends in one of these built files: builders give URLs of style sheets and pages the base by themselves. */
function mayBecome(source: string, built: readonly WrittenUrl[]): boolean {
  const isPage = built.some(({ file }) => /\.html?$/.test(file))
  if (/\.(?:css|s[ac]ss|less|styl)$/.test(source))
    return isPage || built.some(({ file }) => file.endsWith('.css'))
  return isPage || !/\.html?$/.test(source)
}

/** Files in which an expression may stand for a URL. */
const takesExpressions = /\.(?:[cm]?[jt]sx?|vue|svelte|astro)$/

/** Looked for in the sources, changed, and listed one by one. More are a matter of a search, not of a list. */
const mostUrls = 200
const mostPlaces = 200
const mostSteps = 20
