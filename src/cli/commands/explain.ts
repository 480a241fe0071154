import { judges } from '../../core/checks/index.ts'
import { FolderError, UsageError } from '../../core/model/errors.ts'
import { unknown } from '../../core/model/unknown.ts'
import { openProject } from '../../core/pipeline/open.ts'
import { openPath } from '../../node/opening/locate.ts'
import { renderExplanation } from '../../terminal/explain.ts'
import { styleFor } from '../../terminal/style.ts'
import { type ExitStatus, exit, type Streams } from '../streams.ts'

/** What does this code mean? Without a code, lists them all. */
export async function explainCommand(
  code: string | undefined,
  color: boolean,
  { out }: Streams,
): Promise<ExitStatus> {
  const style = styleFor(out, color)
  if (code === undefined) {
    const width = Math.max(...judges.map((judge) => judge.code.length)) + 2
    for (const judge of judges) out.write(`${style.colors.cyan(judge.code.padEnd(width))}${judge.title}\n`)
    return exit.clear
  }
  const judge = judges.find((each) => each.code === code)
  if (!judge) {
    throw new UsageError(
      unknown(
        'finding code',
        code,
        judges.map((each) => each.code),
      ),
    )
  }
  out.write(renderExplanation(judge, style, await frameworkHere()))
  return exit.clear
}

/** The framework of the project that a person stands in: its remedy comes first. */
async function frameworkHere(): Promise<string | null> {
  try {
    const found = await openProject(await openPath('.'))
    return found?.survey.framework?.value ?? null
  } catch (error) {
    // No project, or one of several: then all remedies are as good.
    if (error instanceof UsageError || error instanceof FolderError) return null
    throw error
  }
}
