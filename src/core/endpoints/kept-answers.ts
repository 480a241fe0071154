import type { Harmless, Outcome } from './flow/outcome.ts'
import type { Sink } from './flow/sinks.ts'
import type { FreeUse } from './free-use.ts'

/** What became of a question, in a form that is kept from one run to the next. */
export interface KeptAnswer {
  /** Null where the script can't be parsed. */
  readonly outcome:
    | (Omit<Outcome, 'sinks' | 'harmless' | 'lostAs'> & {
        readonly sinks: readonly Sink[]
        readonly harmless: readonly Harmless[]
        readonly lostAs: readonly string[]
      })
    | null
  /** When a name is looked up, of a question for that. */
  readonly use?: FreeUse | null
  /** What was parsed for it; UTF-16 units. */
  readonly parsed: number
  /** Files that it came to and that hold more than is followed. */
  readonly beyond: readonly string[]
}

/** Answers of earlier runs, by the contents that they follow from. */
export interface KeptAnswers {
  /** Names the content of a file; null where nobody knows it. */
  keyOf(path: string): string | null
  /** Names the contents of all files with their paths; null where nobody knows them. */
  readonly all: string | null
  get(question: string): KeptAnswer | undefined
  set(question: string, answer: KeptAnswer): void
  /** All questions are asked: what was asked is kept. */
  keep(): void
}

export function outcomeFrom({ outcome }: KeptAnswer): Outcome | null {
  if (!outcome) return null
  const { sinks, harmless, lostAs } = outcome
  return { ...outcome, sinks: new Set(sinks), harmless: new Set(harmless), lostAs: new Set(lostAs) }
}

export function keptForm(outcome: Outcome | null): KeptAnswer['outcome'] {
  if (!outcome) return null
  const { sinks, harmless, lostAs } = outcome
  return { ...outcome, sinks: [...sinks], harmless: [...harmless], lostAs: [...lostAs] }
}
