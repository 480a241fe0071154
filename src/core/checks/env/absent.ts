import { nameOf } from '../../model/folder.ts'
import type { EnvironmentState } from '../../model/report.ts'
import { counted, escapePattern, listed } from '../../model/text.ts'
import { passedOn } from '../../project/survey.ts'
import { type Cause, type CausePlace, defineCheck, type Evidence, rebuild } from '../check.ts'
import { setMissing } from '../missing-variables.ts'

/** A variable the source relies on was not there when the build ran. */
export const absent = defineCheck({
  code: 'env/absent',
  severity: 'blocker',
  title: 'A variable was missing when this was built',
  keywords: ['undefined', 'environment variable', '.env', 'missing variable'],
  after: ['env/unreplaced'],
  run,
})

/** One cause where several variables are missing together: the build machine had none of them. */
function run(evidence: Evidence): Cause[] {
  const { environment } = evidence
  const shown = environment.filter(({ name, state }) => state === 'absent' && !isUnreplaced(name, evidence))
  const places = shown.flatMap((variable) => placesFor(variable, evidence))
  const gaps = evidence.facts.flatMap(({ path, gaps: found }) => found.map((gap) => ({ file: path, ...gap })))
  const requests = othersThan(places, evidence)
  const others = [...requests, ...gaps]
  const nowhere = environment.filter(
    (variable) => isNowhere(variable, evidence) && !isUnreplaced(variable.name, evidence),
  )
  // A request that begins with nothing needs a variable that nothing sets, where the sources read one.
  const meant = others.length > 0 ? nowhere : []
  const missing = [...shown, ...meant]
  if (missing.length > 0) return [named(missing, [...places, ...(meant.length > 0 ? others : [])], evidence)]
  if (others.length > 0)
    return [
      ...(requests.length > 0 ? [unnamed(requests, evidence)] : []),
      ...(gaps.length > 0 ? [brokenScripts(gaps, evidence)] : []),
    ]
  const unseen = nowhere.filter(
    ({ name, readAt }) =>
      !isInText(name, evidence) &&
      !isUnread(name, evidence) &&
      readAt.some(({ file }) => isImported(file, evidence)),
  )
  return unseen.length > 0 && evidence.facts.length > 0 ? [doubtful(unseen, evidence)] : []
}

/** A value that the build does not put in is no missing one. */
function isUnreplaced(name: string, { reported }: Evidence): boolean {
  return reported.some(
    ({ check, cause }) => check.code === 'env/unreplaced' && cause.key.split(' ').includes(name),
  )
}

/** The configuration passes it on, and no source asks for it. */
function isUnread(name: string, { survey }: Evidence): boolean {
  return survey.reads.every((read) => read.name !== name || read.unread === true)
}

/** What is put into a longer text would have been seen there as `undefined`. */
function isInText(name: string, { survey }: Evidence): boolean {
  return survey.reads.some((read) => read.name === name && read.inText === true)
}

/** Files that a build begins with, whatever imports them. */
const entries = /^(?:index|main|app|_app|root|entry.*|client|layout|page|\+.*)$/i

/** Whether anything names a source as one that it imports: what nothing does ships with no build. */
function isImported(file: string, { sources, survey }: Evidence): boolean {
  const stem = nameOf(file).replace(/\.\w+$/, '')
  if (!sources.texts.has(file) || entries.test(stem) || survey.definition?.pages !== undefined) return true
  const named = new RegExp(`[/'"\`]${escapePattern(stem)}(?:\\.\\w+)?['"\`]`)
  return [...sources.texts].some(([other, text]) => other !== file && named.test(text))
}

/** Nothing sets them, and the build does not show what became of them: the machine that built may have had them. */
function doubtful(missing: readonly EnvironmentState[], evidence: Evidence): Cause {
  const names = missing.map(({ name }) => name)
  const [it, are] = names.length > 1 ? ['they', 'are'] : ['it', 'is']
  const [first] = missing
  return {
    key: names.join(' '),
    severity: 'caution',
    title: names.length > 1 ? 'Variables may have been missing' : 'A variable may have been missing',
    impact: `If ${it} ${names.length > 1 ? 'were' : 'was'} not set when this was built, what needs ${listed(names)} does not work.`,
    cause: `${withPlaces(missing)} ${are} read without a fallback. No file of the project sets ${names.length > 1 ? 'them' : 'it'}, and the build does not show a value.`,
    source: first?.readAt[0] ?? null,
    fix: setMissing(missing, evidence),
  }
}

function withPlaces(missing: readonly EnvironmentState[]): string {
  return listed(missing.map(({ name, readAt: [at] }) => (at ? `${name} (${at.file}:${at.line})` : name)))
}

function named(
  missing: readonly EnvironmentState[],
  places: readonly CausePlace[],
  evidence: Evidence,
): Cause {
  const names = missing.map(({ name }) => name)
  const list = listed(names)
  return {
    key: names.join(' '),
    title: names.length > 1 ? `${names.length} variables were missing when this was built` : absent.title,
    impact: `What needs ${list} does not work: the bundle holds undefined instead.`,
    cause: `${withPlaces(missing)} ${names.length > 1 ? 'are' : 'is'} read without a fallback, and ${names.length > 1 ? 'were' : 'was'} not set when the build ran.`,
    places,
    source: missing[0]?.readAt[0] ?? null,
    fix: setMissing(missing, evidence),
  }
}

/** Without sources that read it, the variable has no name. */
function unnamed(places: readonly CausePlace[], evidence: Evidence): Cause {
  const several = places.length > 1
  return {
    key: 'a request begins with undefined',
    title: absent.title,
    impact: `Data does not load: the page asks for an address that holds undefined.`,
    cause: `${counted(places.length, 'request')} ${several ? 'hold' : 'holds'} undefined, where the build should have put the address of a service.`,
    places,
    fix: [
      `Find the variable that ${several ? 'these requests need' : 'this request needs'}, and set it where the build runs.`,
      rebuild(evidence),
    ],
  }
}

/** Inline scripts in which nothing stands where a value should, as another cause where no variable is known for it. */
function brokenScripts(places: readonly CausePlace[], evidence: Evidence): Cause {
  const several = places.length > 1
  return {
    key: 'an inline script has a gap',
    title: 'A script in the page has nothing where a value should be',
    impact: `A browser runs none of ${several ? 'these scripts' : 'this script'}: what ${several ? 'they do' : 'it does'} is missing from the page.`,
    cause: `${counted(places.length, 'inline script')} can not be parsed: a template put an empty text where the code needs a value.`,
    places,
    fix: [
      `Find what the template puts there, and set it where the build runs; let the template write it as JSON, so that an empty value is "" and no gap.`,
      rebuild(evidence),
    ],
  }
}

/** Places of requests that begin with nothing, beside those that a variable is known for. */
function othersThan(own: readonly CausePlace[], { absences, reported }: Evidence): CausePlace[] {
  const unreplaced = reported.filter(({ check }) => check.code === 'env/unreplaced')
  const known = [...own, ...unreplaced.flatMap(({ cause }) => cause.places)]
  const end = ({ offset, length }: CausePlace): number => (offset ?? 0) + length
  const isKnown = (place: CausePlace): boolean =>
    known.some(
      (each) =>
        each.file === place.file && (each.offset ?? 0) < end(place) && (place.offset ?? 0) < end(each),
    )
  return absences.flatMap(({ places }) => places).filter((place) => !isKnown(place))
}

/** Whether the sources read a variable without a guard, nothing sets it, and the build does not show it. */
function isNowhere(
  { name, state, definedIn, inProcess, readAt }: EnvironmentState,
  { survey }: Evidence,
): boolean {
  const prefixes = survey.prefixes?.value ?? []
  const isPublic =
    passedOn(survey).has(name) || prefixes.some((prefix) => prefix !== '' && name.startsWith(prefix))
  return state === 'unknown' && readAt.length > 0 && isPublic && definedIn.length === 0 && !inProcess
}

function placesFor({ name, readAt }: EnvironmentState, { facts, survey }: Evidence): CausePlace[] {
  return facts.flatMap(({ path, occurrences }) =>
    occurrences
      .filter((occurrence) => occurrence.name === name && ['absent', 'lacking'].includes(occurrence.state))
      .map(({ offset, length, read }) => {
        const source = read === null ? readAt[0] : survey.reads[read]?.place
        return { file: path, offset, length, ...(source ? { source } : {}) }
      }),
  )
}
