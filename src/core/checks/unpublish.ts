import type { Edit } from '../model/report.ts'
import { type CauseFix, type Evidence, rebuild } from './check.ts'

/** Where files are moved that are not for visitors: beside the sources, and copied by no builder. */
const apart = 'unpublished'

/** Files that are moved one by one; more are a matter of a whole directory. */
const mostMoved = 20

/**
 * Takes files out of what the build copies as it is: each is moved to a directory that nothing publishes, so that nothing is
 * lost. In words where it is not known what a copy was made from.
 * @param paths the copies, from the build folder
 * @param after what is left to do when they were published
 */
export async function unpublish(
  paths: readonly string[],
  evidence: Evidence,
  after: readonly string[] = [],
): Promise<CauseFix> {
  const { folder } = evidence
  const moves = paths.length > mostMoved ? null : await movesOf(paths, evidence)
  if (!moves) {
    const [what, which] = paths.length === 1 ? [paths[0], 'it'] : ['them', 'them']
    return {
      steps: [
        `Take ${what} out of what the build copies as it is, and ${which} out of ${folder.name}.`,
        ...after,
      ],
    }
  }
  return {
    steps: [
      ...moves.map(({ file, moveTo }) => `Move ${file} to ${moveTo}, which nothing publishes.`),
      `Delete ${folder.name}. ${rebuild(evidence)}`,
      ...after,
    ],
    edits: moves,
  }
}

async function movesOf(paths: readonly string[], evidence: Evidence): Promise<Edit[] | null> {
  const moves: Edit[] = []
  for (const path of paths) {
    const file = await evidence.copiedFrom(path)
    const moveTo = `${apart}/${path}`
    if (file === null || (await evidence.projectText(moveTo)) !== null) return null
    moves.push({ file, line: null, write: '', moveTo })
  }
  return moves
}
