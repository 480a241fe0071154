import type { Endpoint } from '../endpoints/endpoint.ts'
import type { Host } from '../host/host.ts'
import type { FileFacts } from '../model/facts.ts'
import type { Place } from '../model/reading.ts'
import { kindsByWeight } from '../model/reference.ts'
import type { Comparison, Delivery, EnvironmentState, Fix, RouteAnswer, Severity } from '../model/report.ts'
import type { Site } from '../model/site.ts'
import type { NamedAddress } from '../project/addresses.ts'
import type { RuleFile } from '../project/rules/rule-files.ts'
import type { Sources } from '../project/sources/sources.ts'
import type { Freshness } from '../project/sources/times.ts'
import type { Survey } from '../project/survey.ts'
import type { Reached } from '../reach/reached.ts'
import type { Rehearsal } from '../rehearse/rehearsal.ts'
import type { Limits } from '../release/limits.ts'
import type { Request, Requested } from '../requests/request.ts'
import type { Explanation } from './explanation.ts'

/** All a check may look at. */
export interface Evidence {
  readonly site: Site
  readonly host: Host
  readonly hostGiven: boolean
  readonly survey: Survey
  /** What names the site's address: configuration, domain files, manifest, repository. */
  readonly addresses: readonly NamedAddress[]
  readonly sources: Sources
  readonly folder: CheckedFolder
  readonly facts: readonly FileFacts[]
  readonly requested: Requested
  /** Requests that fail and that no other finding has taken as its own yet. */
  readonly failing: readonly Request[]
  /** Routes that get an error and that no other finding has taken as its own yet. */
  readonly unanswered: readonly RouteAnswer[]
  /** Files with rules for the host: in the build folder or read from the repository, and those of the project. */
  readonly ruleFiles: { readonly live: readonly RuleFile[]; readonly declared: readonly RuleFile[] }
  /** Whether the sources are those that were built; null when there is no build. */
  readonly freshness: Freshness | null
  /** The bytes of a built file, or null when it can't be read. */
  readonly readFile: (path: string) => Promise<Uint8Array | null>
  /** The text of a file of the project, or null when it is not there. */
  readonly projectText: (file: string) => Promise<string | null>
  readonly environment: readonly EnvironmentState[]
  readonly endpoints: readonly Endpoint[]
  /** What the endpoints answered, when somebody requested them. */
  readonly reached: readonly Reached[]
  /** What was seen when the build was rehearsed; null when it was not. */
  readonly rehearsal: Rehearsal | null
  /** What the folder weighs, and what first visits download. */
  readonly delivery: Delivery
  readonly limits: Limits
  /** What this release changes; null when it was not compared with an earlier one. */
  readonly comparison: Comparison | null
  /** What other checks have found so far. */
  readonly reported: readonly { readonly check: Check; readonly cause: Cause }[]
}

/** The build folder, as sentences name it. */
export interface CheckedFolder {
  readonly path: string
  /** Its path; "the folder" where that is only dots. */
  readonly name: string
  /** What stands before the path of a file in it: `dist/`, or nothing. */
  readonly prefix: string
  /** Whether it is there. */
  readonly present: boolean
}

/** How sentences name the folder at a path. */
export function checkedFolder(path: string, present: boolean): CheckedFolder {
  const isHere = path === '.' || path === ''
  const name = /^[./]*$/.test(path) ? 'the folder' : path
  return { path, name, prefix: isHere ? '' : `${path.replace(/\/$/, '')}/`, present }
}

/** How sentences name the directory that a command is run in. */
export function directoryInWords(path: string): string {
  if (path === '.' || path === '') return 'this directory'
  return /^[./]*$/.test(path) ? `the directory "${path}"` : path
}

/** Where a cause shows: an offset in a built file, or none when the file as a whole is meant. */
export interface CausePlace {
  readonly file: string
  readonly offset: number | null
  readonly length: number
  readonly request?: string
  readonly status?: number
  readonly source?: Place
}

/** What to change: the steps, and the texts to write where these are known. */
export type CauseFix = Omit<Fix, 'edits'> & Partial<Pick<Fix, 'edits'>>

/** One cause, with all its places. */
export interface Cause {
  /** Names this cause among others of its code, and stays the same from build to build. */
  readonly key: string
  readonly severity?: Severity
  readonly title?: string
  /** What a visitor sees, in one sentence. */
  readonly impact: string
  /** Why, in one sentence. */
  readonly cause: string
  readonly places: readonly CausePlace[]
  /** How many places there are, when not all are shown. */
  readonly count?: number
  /** Where in the project the cause is, when that is known. */
  readonly source?: Place | null | undefined
  readonly fix: CauseFix
  /** The failing requests and routes this cause explains; no other finding speaks of them. */
  readonly claims?: readonly (Request | RouteAnswer)[]
}

/** A finding code: what it means, and how it is found. */
export interface Check {
  readonly code: string
  readonly severity: Severity
  /** What is wrong, in a few words. */
  readonly title: string
  /** Words that people search for when they see it. */
  readonly keywords?: readonly string[]
  /** Codes that explain failing requests better, and so run first; `*` for all that need no rehearsal. */
  readonly after: readonly string[]
  /** What it means and how it is fixed. Of the checks of this package a Markdown file beside each says so. */
  readonly explanation?: Explanation
  run(evidence: Evidence): readonly Cause[] | Promise<readonly Cause[]>
}

/** A check as it is written: what is left out is what most have. */
export type CheckDefinition = Omit<Check, 'after'> & Partial<Pick<Check, 'after'>>

/** A check, with what its definition leaves out. */
export function defineCheck(definition: CheckDefinition): Check {
  return { after: [], ...definition }
}

/** "Then rebuild" with the project's own command. */
export function rebuild({ survey }: Pick<Evidence, 'survey'>): string {
  const command = survey.build?.command.value
  return command ? `Then rebuild: ${command}` : 'Then rebuild.'
}

/** The command that builds, or words that stand for it. */
export function buildCommandOf({ survey }: Pick<Evidence, 'survey'>): string {
  return survey.build?.command.value ?? "the project's build command"
}

/** The places of failing requests as they are shown, those a visitor feels most first. */
export function placesOf(requests: readonly Request[]): CausePlace[] {
  return requests
    .flatMap(({ places, url, answer: { status } }) =>
      places.map(({ file, reference }) => ({ file, reference, url, status })),
    )
    .sort((a, b) => kindsByWeight.indexOf(a.reference.kind) - kindsByWeight.indexOf(b.reference.kind))
    .map(({ file, reference: { offset, length }, url, status }) => ({
      file,
      offset,
      length,
      request: url,
      status,
    }))
}
