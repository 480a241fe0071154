import type { Check } from '../../core/checks/check.ts'
import { serverTexts } from '../../core/checks/fallback-rules.ts'
import { checks } from '../../core/checks/index.ts'
import { checksFor } from '../../core/checks/search.ts'
import { FolderError, UsageError } from '../../core/model/errors.ts'
import { parseSite } from '../../core/model/site.ts'
import { nearest } from '../../core/model/text.ts'
import { openProject } from '../../core/pipeline/open.ts'
import { explanationOf } from '../../node/explanations.ts'
import { openPath } from '../../node/opening/locate.ts'
import { renderExplanation } from '../../terminal/explain.ts'
import { type Style, styleFor } from '../../terminal/style.ts'
import { type ExitStatus, exit, type Streams, type TextStream } from '../streams.ts'

/** What does this mean? A code or words that people search for; an area, or nothing, lists the codes. */
export async function explainCommand(
  text: string | undefined,
  { color, site }: { readonly color: boolean; readonly site?: string },
  { out }: Streams,
): Promise<ExitStatus> {
  const texts = site === undefined ? [] : serverTexts(parseSite(site), (file) => file === 'index.html')
  const style = styleFor(out, color)
  const found = text === undefined ? checks : checksFor(text, checks)
  const [check, ...others] = found
  if (!check) {
    const near = nearest(
      text ?? '',
      checks.map(({ code }) => code),
    )
    const hint = near === null ? 'wardoscope explain lists all codes.' : `Did you mean ${near}?`
    throw new UsageError(`Nothing is known under "${text}". ${hint}`)
  }
  const explanation = others.length === 0 ? await explanationOf(check) : null
  if (explanation) {
    const own = rulesHelp.test(check.code) ? texts : []
    out.write(renderExplanation(check, explanation, style, await frameworkHere(), own))
  } else listChecks(found, style, out)
  return exit.clear
}

/** What a rule of the host puts right. */
const rulesHelp = /^route\/(?:no-answer|error-status)$/

function listChecks(list: readonly Check[], { colors }: Style, out: TextStream): void {
  const width = Math.max(...list.map(({ code }) => code.length)) + 2
  for (const { code, title } of list) out.write(`${colors.cyan(code.padEnd(width))}${title}\n`)
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
