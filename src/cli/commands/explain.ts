import { checks } from '../../core/checks/index.ts'
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
    const width = Math.max(...checks.map((check) => check.code.length)) + 2
    for (const check of checks) out.write(`${style.colors.cyan(check.code.padEnd(width))}${check.title}\n`)
    return exit.clear
  }
  const check = checks.find((each) => each.code === code)
  if (!check) {
    throw new UsageError(
      unknown(
        'finding code',
        code,
        checks.map((each) => each.code),
      ),
    )
  }
  out.write(renderExplanation(check, style, await frameworkHere()))
  return exit.clear
}

/** The framework of the project that a person stands in: its fix comes first. */
async function frameworkHere(): Promise<string | null> {
  try {
    const found = await openProject(await openPath('.'))
    return found?.survey.framework?.value ?? null
  } catch (error) {
    // No project, or one of several: then all fixes are as good.
    if (error instanceof UsageError || error instanceof FolderError) return null
    throw error
  }
}
