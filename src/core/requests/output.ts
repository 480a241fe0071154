import type { FileFacts } from '../model/facts.ts'
import { FolderIndex } from './folder-index.ts'
import { type ObservedBase, observeBase } from './observed-base.ts'

/** A build folder that was read: its files, and what they tell of the whole. */
export interface Output {
  readonly facts: readonly FileFacts[]
  readonly index: FolderIndex
  /** The base path that it was built for, as far as it shows. */
  readonly observed: ObservedBase | null
}

/** Index and base path are made here and nowhere else: on a large site they take as long as a check. */
export function outputOf(facts: readonly FileFacts[]): Output {
  const index = new FolderIndex(facts)
  return { facts, index, observed: observeBase(facts, index) }
}
