import type { Place } from '../../model/reading.ts'
import { Fold } from '../../syntax/fold.ts'
import type { SyntaxNode } from '../../syntax/node.ts'
import type { Tree } from '../../syntax/tree.ts'

/** Built code has no places of its own: who asks knows the offset. */
const nowhere: Place = { file: '', line: 1, column: 1 }

/** Folds the texts that a built script puts together, as far as its constants tell. */
export function foldScript(text: string, tree: Tree): Fold {
  return new Fold(
    { text, tree, placeOf: () => nowhere },
    { called: (callee, args) => (callee === 'URL' && args.length === 1 ? (args[0] ?? null) : null) },
  )
}

/** The beginning of the text that an expression makes; empty when it is not known. */
export function knownText(fold: Fold, node: SyntaxNode): string {
  const folded = fold.of(node)
  if (folded.kind === 'computed') return folded.begins ?? ''
  return folded.kind === 'value' ? String(folded.value ?? '') : ''
}
