import type { Endpoint, EndpointCertainty } from './endpoint.ts'
import type { ForHost, Harmless, Outcome } from './flow/outcome.ts'

/** What is said of an address. */
export type Judgement = Pick<Endpoint, 'certainty' | 'judgement' | 'flow'>

const harmlessWords: Readonly<Record<Harmless, string>> = {
  base: 'only the base for reading a relative address',
  'after own address': "only where the page's own address is not known",
  compared: 'only compared with',
  reported: 'part of a message',
  guarded: "only used where the page's own host is a developer's",
  default: 'only used where no other is given',
  replaced: 'replaced by another value before it is used',
  another: 'one of several, of which others are taken',
  'other host': 'only for pages of another host',
  behind: 'a path behind an address that is not known',
}

/** What does not make the browser ask: a policy allows, a message goes to a window. */
const noRequest = new Set(['policy', 'message target', 'link'])

/** A request that the code around a literal shows. */
export function byFlow(flow: string): Judgement {
  if (noRequest.has(flow)) return { certainty: 'harmless', judgement: `named by a ${flow}`, flow }
  if (flow === 'preconnect') return { certainty: 'likely', judgement: 'connected to beforehand', flow }
  // A page works without the picture of a link to it.
  if (flow === 'hint') return { certainty: 'likely', judgement: 'fetched apart from the page', flow }
  return {
    certainty: 'called',
    judgement: flow === 'configuration' ? 'the address of a service in the configuration' : 'requested',
    flow,
  }
}

/**
 * What following a literal through the code says.
 * @param owned this project wrote it, not a library
 * @param ownHost of the site; null where nobody named it
 */
export function byOutcome(
  { sinks, harmless, hosts, isLost }: Pick<Outcome, 'sinks' | 'harmless' | 'hosts' | 'isLost'>,
  owned: boolean,
  ownHost: string | null,
): Judgement {
  const flow = [...sinks].find((sink) => !noRequest.has(sink)) ?? [...sinks][0]
  if (flow !== undefined) return byFlow(flow)
  const settled = [...harmless].find((reason) => settling.has(reason))
  if (settled && !isLost) return quiet(harmlessWords[settled])
  if (hosts.length > 0 && hosts.every((host) => !isTaken(host, ownHost)))
    return quiet(harmlessWords['other host'])
  // What a library falls back on is for its caller to replace; what the project falls back on, visitors may meet.
  if (owned && harmless.has('default')) return likely(harmlessWords.default)
  const [reason] = harmless
  if (reason !== undefined && !(owned && (isLost || hosts.length > 0))) return quiet(harmlessWords[reason])
  return owned
    ? likely('written by this project, and passed to what was not followed')
    : quiet('not passed to any request')
}

/** Whether pages of a host take a value that a comparison with a name decides on. Of a host that nobody named, all may. */
function isTaken({ name, isFor }: ForHost, ownHost: string | null): boolean {
  if (ownHost === null) return true
  const isIt = ownHost === name || ownHost.endsWith(`.${name.replace(/^\./, '')}`)
  return isIt === isFor
}

/** What leaves no other way for a value. */
const settling: ReadonlySet<Harmless> = new Set(['guarded', 'replaced', 'another', 'after own address'])

/** Whether following a literal through the build says all there is to say, so that its sources need not be asked. */
export function isSettled({ harmless, isLost }: Pick<Outcome, 'harmless' | 'isLost'>): boolean {
  return !isLost && [...harmless].some((reason) => settling.has(reason))
}

const ofScript = /^https?:\/\/[^?#]+\.m?js(?:$|[?#])/i

/** Whether an address in a script is of another one, which is named to be loaded by whatever means: a table of remote parts is one. */
export function isLoaded(url: string, outcome: Pick<Outcome, 'sinks' | 'harmless'> | null): boolean {
  return ofScript.test(url) && (outcome === null || (outcome.sinks.size === 0 && outcome.harmless.size === 0))
}

/** What only a convention of names shows: where nothing stands there, the client may ask its own origin, as it should. */
const byNameOnly = new Set(['client', 'configuration', 'import'])

/** What following a value that is not there says: proof where a request takes it and nothing on the way asks for it. */
export function byAbsence(outcome: Outcome | null): Judgement {
  const flow = [...(outcome?.sinks ?? [])].find((sink) => !noRequest.has(sink) && !byNameOnly.has(sink))
  if (flow === undefined || (outcome && outcome.harmless.size > 0)) return quiet('not passed to any request')
  return byFlow(flow)
}

/** A host without a scheme is a name like others, unless it is seen to be requested. */
export const onlyAName = quiet('a name that is not passed to any request')

/** A literal of a library, of which nothing says that it is requested. */
export const ofLibrary = quiet('text of a library')

/** A literal that this project wrote, in code that could not be followed. */
export const ofProject = likely('written by this project')

/** A link that this project's own source gives its visitors. */
export const ledTo: Judgement = { ...likely('linked from a page'), flow: 'link' }

/** A mention further in: a sentence, or markup. */
export const mentioned = quiet('mentioned in a longer text')

function likely(judgement: string): Judgement {
  return { certainty: 'likely', judgement, flow: null }
}

function quiet(judgement: string): Judgement {
  return { certainty: 'harmless', judgement, flow: null }
}

const ranks: readonly EndpointCertainty[] = ['called', 'likely', 'harmless']

/** The weightier of two: one place that is requested is enough. */
export function weightier(a: Judgement, b: Judgement): Judgement {
  return ranks.indexOf(a.certainty) <= ranks.indexOf(b.certainty) ? a : b
}
