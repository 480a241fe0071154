import type { Endpoint } from '../endpoints/endpoint.ts'
import type { UnmetName } from '../endpoints/unmet-name.ts'
import type { Host } from '../host/host.ts'
import type { Live } from '../live/live.ts'
import type { FileFacts } from '../model/facts.ts'
import type { Comparison, Delivery, EnvironmentState, RouteAnswer } from '../model/report.ts'
import type { Site } from '../model/site.ts'
import type { NamedAddress } from '../project/addresses.ts'
import type { RuleFile } from '../project/declared/rule-files.ts'
import type { OtherCopy } from '../project/other-copies.ts'
import type { Sources } from '../project/sources/sources.ts'
import type { Freshness } from '../project/sources/times.ts'
import type { Survey } from '../project/survey.ts'
import type { Reached } from '../reach/reached.ts'
import type { Rehearsal } from '../rehearse/rehearsal.ts'
import type { Limits } from '../release/limits.ts'
import type { Request, Requested } from '../requests/request.ts'
import type { Reported } from './cause.ts'

/** Where the folder is served, and how its host answers. */
export interface Served {
  readonly site: Site
  readonly host: Host
  readonly hostGiven: boolean
  /** Files with rules for the host: in the build folder or read from the repository, and those of the project. */
  readonly ruleFiles: { readonly live: readonly RuleFile[]; readonly declared: readonly RuleFile[] }
}

/** What the project's own files say. */
export interface Surveyed {
  readonly survey: Survey
  readonly sources: Sources
  /** What names the site's address: configuration, domain files, manifest, repository. */
  readonly addresses: readonly NamedAddress[]
  /** Whether the sources are those that were built; null when there is no build. */
  readonly freshness: Freshness | null
  /** Other directories of the project that hold this output, of another time. */
  readonly otherCopies: readonly OtherCopy[]
  /** The file of the project that the build copied as it is to a path of the build folder; null when none is known. */
  readonly copiedFrom: (path: string) => Promise<string | null>
  /** The text of a file of the project, or null when it is not there. */
  readonly projectText: (file: string) => Promise<string | null>
}

/** What the build folder holds, requests and weighs. */
export interface Examined {
  readonly folder: CheckedFolder
  readonly facts: readonly FileFacts[]
  readonly requested: Requested
  /** The bytes of a built file, or null when it can't be read. */
  readonly readFile: (path: string) => Promise<Uint8Array | null>
  readonly environment: readonly EnvironmentState[]
  readonly endpoints: readonly Endpoint[]
  /** Requests whose address begins with what was not there when this was built. */
  readonly absences: readonly Endpoint[]
  /** Names of Node's that scripts of the pages need. */
  readonly unmet: readonly UnmetName[]
  /** Files whose scripts hold addresses and are too large to be followed. */
  readonly unfollowed: readonly string[]
  /** What the folder weighs, and what first visits download. */
  readonly delivery: Delivery
}

/** What was seen by doing more than reading: only when somebody asked for it. */
export interface Tried {
  /** What the endpoints answered. */
  readonly reached: readonly Reached[]
  /** What was seen when the build was rehearsed; null when it was not. */
  readonly rehearsal: Rehearsal | null
  /** What the site's address serves; null when nobody asked it. */
  readonly live: Live | null
  /** What this release changes; null when it was not compared with an earlier one. */
  readonly comparison: Comparison | null
}

/** All that is known before the first check runs. */
export interface Known extends Served, Surveyed, Examined, Tried {
  readonly limits: Limits
}

/** All that a check may look at. */
export interface Evidence extends Known {
  /** Requests that fail and that no other finding has taken as its own yet. */
  readonly failing: readonly Request[]
  /** Routes that get an error and that no other finding has taken as its own yet. */
  readonly unanswered: readonly RouteAnswer[]
  /** What other checks have found so far. */
  readonly reported: readonly Reported[]
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
