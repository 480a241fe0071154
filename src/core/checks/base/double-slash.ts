import { type Place, placeAt } from '../../model/reading.ts'
import { withoutQuery } from '../../model/reference.ts'
import type { Edit, RouteAnswer } from '../../model/report.ts'
import { counted } from '../../model/text.ts'
import type { Request, RequestPlace } from '../../requests/request.ts'
import {
  type Cause,
  type CauseFix,
  type CausePlace,
  defineCheck,
  type Evidence,
  placesOf,
  rebuild,
} from '../check.ts'
import { endpointPlaces } from '../endpoint-causes.ts'
import { isHostByMistake, isThereWithOne, merged } from '../merged-slashes.ts'
import { effectOf, severityOf } from '../missing-files.ts'
import { rewritten, stepsOf } from '../own-files.ts'

/** A base path that ends with a slash was put before a path that begins with one. */
export const doubleSlash = defineCheck({
  code: 'base/double-slash',
  severity: 'blocker',
  title: 'Two slashes make a host of a path',
  keywords: ['net::ERR_NAME_NOT_RESOLVED', 'protocol-relative', 'double slash', 'BASE_URL'],
  run: async (evidence) => [
    ...(await hostsOf(evidence)),
    ...(await askedIn(evidence)),
    ...(await doubledIn(evidence)),
  ],
})

/** `//logo.svg`: a browser asks a host of that name. */
async function hostsOf(evidence: Evidence): Promise<Cause[]> {
  const { asHost } = evidence.requested
  const [first] = asHost
  if (!first) return []
  const raw = first.reference.raw
  const host = raw.slice(2).split(/[/?#]/)[0]
  const places = asHost.map(({ file, reference }) => placeOf(file, reference, `https:${reference.raw}`))
  return [
    {
      key: 'host',
      severity: severityOf([asRequest(asHost)]),
      impact: impactOf(asHost),
      cause: `${raw} begins with two slashes, so browsers take ${host} for a host and ask that one. ${evidence.folder.name} holds ${evidence.requested.index.fileAt(withoutQuery(raw).slice(2))}.`,
      places,
      ...(await joined(raw, places, evidence)),
    },
  ]
}

/** `fetch("//api/tides")`: the same, of a path that no file answers. */
async function askedIn(evidence: Evidence): Promise<Cause[]> {
  const { index } = evidence.requested
  const asked = evidence.endpoints.filter(
    (each) =>
      isHostByMistake(each) &&
      each.certainty === 'called' &&
      !index.isOwnPath(withoutQuery(each.url).slice(2)),
  )
  const [first] = asked
  if (!first) return []
  const host = first.url.slice(2).split('/')[0]
  const places = asked.flatMap(endpointPlaces)
  return [
    {
      key: 'service',
      impact: 'Data does not load: there is no such host.',
      cause: `${first.url} begins with two slashes, so browsers take ${host} for a host and ask that one.`,
      places,
      ...(await joined(first.url, places, evidence)),
    },
  ]
}

function impactOf(places: readonly RequestPlace[]): string {
  const isLink = ({ reference: { kind } }: RequestPlace): boolean => kind === 'page' || kind === 'navigation'
  const links = places.filter(isLink).length
  const files = places.filter((place) => !isLink(place))
  if (links === 0) return effectOf([asRequest(files)])
  const opened = `Whoever follows ${counted(links, 'link')} gets an error of the browser: there is no such host.`
  return files.length === 0 ? opened : `${effectOf([asRequest(files)])} ${opened}`
}

/** For what is said of requests, of which only the kinds matter here. */
function asRequest(places: readonly RequestPlace[]): Pick<Request, 'places'> {
  return { places: [...places] }
}

/** `/b//logo.svg`: whether it is answered depends on the host. */
async function doubledIn(evidence: Evidence): Promise<Cause[]> {
  const { failing, unanswered, requested, site } = evidence
  const requests = failing.filter(({ pathname }) => isThereWithOne(pathname, evidence))
  const routes = unanswered.filter(({ path }) => isThereWithOne(path, evidence))
  const links = [...requested.links.values()].filter(({ pathname }) => isThereWithOne(pathname, evidence))
  const first = requests[0]?.pathname ?? links[0]?.pathname ?? routes[0]?.path
  if (first === undefined) return []
  const places: CausePlace[] = [
    ...placesOf(requests),
    ...links.flatMap(({ pathname, places }) =>
      places.map(({ file, reference }) => placeOf(file, reference, site.origin + pathname)),
    ),
  ]
  const claims: (Request | RouteAnswer)[] = [...requests, ...routes]
  return [
    {
      key: 'doubled',
      severity: 'caution',
      title: 'A path holds two slashes in a row',
      impact: `Depends on the host: servers of files answer ${first} as ${merged(first)}, hosts that look names up as they are answer with an error.`,
      cause: `${first} is requested, and ${evidence.folder.name} holds it at ${merged(first)}.`,
      places,
      ...(await joined(first, places, evidence)),
      claims,
    },
  ]
}

function placeOf(file: string, { offset, length }: RequestPlace['reference'], request: string): CausePlace {
  return { file, offset, length, request }
}

/** The base as sources read it, or as templates hold it. */
const base = String.raw`(?:import\.meta|process)\.env\.(?:BASE_URL|PUBLIC_URL)`
const inTemplates = String.raw`%BASE_URL%|<%=\s{0,3}BASE_URL\s{0,3}%>`
const named = new RegExp(
  String.raw`\b(?:const|let|var)\s{1,3}([\w$]{1,80})\s{0,3}=\s{0,3}${base}\s{0,3}(?:;|\n|$)`,
  'g',
)

/** The base, what puts the next text behind it, and that text's first slash. */
function beforeSlash(text: string): RegExp {
  const names = [...text.matchAll(named)].map(([, name = '']) => name.replaceAll('$', '\\$'))
  const bases = [base, ...names.map((name) => String.raw`(?<![\w$.])${name}`)].join('|')
  const behind = String.raw`(?:\}|\s{0,3}\+\s{0,3}["'\`])`
  return new RegExp(`((?:${bases})(?=${behind}/)|${inTemplates})${behind}?(/)[^\\s"'\`<>{}$]{0,300}`, 'dg')
}

/** Takes the second slash away where the sources put it behind the base, or in a folder that nothing builds. */
async function joined(
  first: string,
  places: readonly CausePlace[],
  evidence: Evidence,
): Promise<{ source: Place | null; fix: CauseFix }> {
  const edits = inSources(evidence)
  const [edit] = edits
  if (edit) {
    const { file, line, column } = edit
    return {
      source: { file, line: line ?? 1, column: column ?? 1 },
      fix: { steps: [...stepsOf(edits), rebuild(evidence)], edits },
    }
  }
  const { base } = evidence.site
  const own = await rewritten(
    places,
    (url) => (url.startsWith('//') ? base + url.replace(/^\/+/, '') : merged(url)),
    evidence,
  )
  if (own) return { source: null, fix: own }
  const end = merged(first)
  const source = evidence.sources.find(end) ?? evidence.sources.find(end.slice(end.lastIndexOf('/')))
  const where = source ? `In ${source.file}, line ${source.line}, take` : 'Take'
  return {
    source,
    fix: {
      steps: [
        `${where} one slash away where ${end} is put together: what stands before it ends with one already.`,
        rebuild(evidence),
      ],
    },
  }
}

function inSources({ sources, survey }: Evidence): Edit[] {
  // Some frameworks give the base with a slash behind it or without: what is taken away then is that of the base.
  const mayLack = survey.definition?.fixes.publicUrl?.write('').includes('.replace(') === true
  return [...sources.texts].flatMap(([file, text]) =>
    [...text.matchAll(beforeSlash(text))].map(({ index, 0: instead, 1: read = '', indices }): Edit => {
      const { line, column } = placeAt(file, text, index)
      const slash = (indices?.[2]?.[0] ?? index) - index
      const write = mayLack
        ? instead.replace(read, () => `${read}.replace(/\\/$/, '')`)
        : instead.slice(0, slash) + instead.slice(slash + 1)
      return { file, line, column, instead, write }
    }),
  )
}
