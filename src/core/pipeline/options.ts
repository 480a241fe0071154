import type { CheckDefinition } from '../checks/check.ts'
import type { Endpoint } from '../endpoints/endpoint.ts'
import type { KeptAnswers } from '../endpoints/kept-answers.ts'
import type { Host, HostFiles } from '../host/host.ts'
import type { Live } from '../live/live.ts'
import type { LiveStage } from '../live/look.ts'
import type { Folder } from '../model/folder.ts'
import type { HistoryOf } from '../model/history.ts'
import type { Mask } from '../model/mask.ts'
import type { RouteAnswer } from '../model/report.ts'
import type { Site } from '../model/site.ts'
import type { Survey } from '../project/survey.ts'
import type { Reached } from '../reach/reached.ts'
import type { Rehearsal } from '../rehearse/rehearsal.ts'
import type { LimitsGiven } from '../release/limits.ts'
import type { Release, Shipped } from '../release/release.ts'
import type { Waiver } from '../release/waivers.ts'
import type { Compress } from '../release/weight.ts'
import type { BuildFolder, Opening } from './open.ts'
import type { ReadOptions } from './read-build.ts'

/** Readings that somebody who ran the build knows. */
export type KnownReadings = Partial<Pick<Survey, 'basePath' | 'mode' | 'devProxy' | 'prefixes'>>

/** What a rehearsal is played with. */
export interface Rehearsable {
  readonly site: Site
  readonly host: Host
  readonly files: HostFiles
  readonly routes: readonly RouteAnswer[]
  readonly build: Folder | null
  /** Hides the values of variables in what is shown or written of it. */
  readonly mask: Mask
}

/** What may hold a build. */
export type HoldOn = (typeof holdable)[number]
export const holdable = ['blocker', 'caution', 'unused-waivers'] as const

/** How a folder is checked. */
export interface CheckOptions
  extends ReadOptions,
    Pick<Opening, 'project' | 'frameworks' | 'around' | 'remarks'> {
  /** Where it will be served. When nobody says, the base path the project expects is taken. */
  readonly site?: Site | null
  /** Several addresses: the folder is read once, and judged at each of them. Wins over `site`. */
  readonly sites?: readonly Site[]
  /** How its host answers. When nobody says, plain files are assumed. */
  readonly host?: Host | null
  /** The build folder, when it is not where the project says. */
  readonly build?: BuildFolder | null
  /** Checks of one's own, run beside those that are known. */
  readonly checks?: readonly CheckDefinition[]
  /** What is known for sure of the project, in place of what its configuration was read to say. */
  readonly readings?: KnownReadings
  /** Routes a visitor can open, beside the pages in the folder. */
  readonly routes?: readonly string[]
  /** How whoever named these routes did it, as the report says it: "--route"; "by name" when nobody says. */
  readonly routesNamed?: string
  /** The environment of the process, whose secrets are looked for in the build. Never stored, never shown. */
  readonly environment?: Readonly<Record<string, string | undefined>>
  /** What the repository knows of when files were changed. */
  readonly history?: HistoryOf | null
  /** Asks the endpoints that the build calls; without it nothing leaves this machine. */
  readonly reach?: (
    site: Site,
    endpoints: readonly Endpoint[],
    named: (text: string) => string,
  ) => Promise<readonly Reached[]>
  /** Asks the site's own address for what the folder holds; without it nothing leaves this machine. */
  readonly live?: (stage: LiveStage) => Promise<Live>
  /** Plays the host and opens the routes; without it nothing is served. */
  readonly rehearse?: (stage: Rehearsable) => Promise<Rehearsal>
  /** Compresses files, to tell what a visitor downloads; without it sizes are those of the folder. */
  readonly compress?: (build: Folder) => Compress
  /** What the folder may weigh; {@link usualLimits} where nothing is said. */
  readonly limits?: LimitsGiven
  /** The release before this one, to say what changes. */
  readonly earlier?: Release | null
  /** Called with what ships, at the first address. */
  readonly onShipped?: (shipped: Shipped) => void
  /** What was followed through scripts in earlier runs, by their contents. */
  readonly answers?: KeptAnswers
  /** Findings that are accepted. */
  readonly waivers?: readonly Waiver[]
  /** The day on which waivers are looked at, `2026-11-25`; today when nobody says. */
  readonly today?: string
  /** What holds the build; blockers always do. */
  readonly holdOn?: HoldOn | readonly HoldOn[]
  /** Values for parameters of routes, by name. */
  readonly samples?: Readonly<Record<string, string>>
}
