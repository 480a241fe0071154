import { kindsByWeight } from '../model/reference.ts'
import type { Severity } from '../model/report.ts'
import { freshCommand } from '../project/build-command.ts'
import type { Request } from '../requests/request.ts'
import type { Cause, CausePlace } from './cause.ts'
import type { Evidence } from './evidence.ts'
import type { Explanation } from './explanation.ts'

export type { Cause, CauseFix, CausePlace } from './cause.ts'
export type { Evidence } from './evidence.ts'

/** How sentences name the directory that a command is run in. */
export function directoryInWords(path: string): string {
  if (path === '.' || path === '') return 'this directory'
  return /^[./]*$/.test(path) ? `the directory "${path}"` : path
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
  const command = freshCommand(survey)
  return command ? `Then rebuild: ${command}` : 'Then rebuild.'
}

/** The command that builds, or words that stand for it. */
export function buildCommandOf({ survey }: Pick<Evidence, 'survey'>): string {
  return freshCommand(survey) ?? "the project's build command"
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
