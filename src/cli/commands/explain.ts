import { judges } from '../../core/judge/judges.ts'
import { UsageError } from '../../core/model/site.ts'
import { unknown } from '../output.ts'
import { type ExitStatus, exit, type Streams } from '../streams.ts'
import { renderExplanation } from '../terminal/explain.ts'
import { styleFor } from '../terminal/style.ts'

/** What does this code mean? Without a code, lists them all. */
export function explainCommand(code: string | undefined, color: boolean, { out }: Streams): ExitStatus {
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
  out.write(renderExplanation(judge, style))
  return exit.clear
}
