import type { NodeName } from '../model/facts.ts'

/** A name that a script needs, and that no browser has. */
export interface UnmetName extends Omit<NodeName, 'made'> {
  readonly file: string
}
