import type { Edit } from '../model/report.ts'
import { buildCommandOf, type CauseFix, type Evidence, rebuild } from './check.ts'

/** What makes a build one for development, in the script that runs it. */
const forDevelopment =
  /(?:--mode|--configuration|-c|--env)(?:=|\s+)(?:development|dev)(?![\w./-])|\bNODE_ENV=(?:development|dev)(?![\w./-])/

/** How a build becomes one for production: where its script says otherwise, that is changed. */
export function productionMode(evidence: Evidence): CauseFix {
  const { build, definition, mode, environmentTarget } = evidence.survey
  const [said] = forDevelopment.exec(build?.script ?? '') ?? []
  const named = mode?.value ?? 'production'
  // A mode of another name may be one for production, and says so in its file.
  if (said === undefined && environmentTarget && definition?.nodeEnvironment?.(named) === 'development')
    return {
      steps: [
        `In ${environmentTarget}, write  NODE_ENV=production  : the mode ${named} alone builds for development.`,
        `Then run ${buildCommandOf(evidence)}.`,
      ],
    }
  const option = definition?.fixes.production
  if (said === undefined && option !== undefined) return byOption(option, evidence)
  if (!build?.at || said === undefined) return { steps: [`Build for production: ${plainly(evidence)}.`] }
  const write = said.replace(/(?:development|dev)$/, 'production')
  const { file, line } = build.at
  const edit: Edit = { file, line, instead: said, write }
  return {
    steps: [
      `In ${file}, line ${line}, write  ${write}  in place of  ${said}`,
      `Then run ${buildCommandOf(evidence)}.`,
    ],
    edits: [edit],
  }
}

/** The option of the builder that asks for production. */
function byOption(option: string, evidence: Evidence): CauseFix {
  const edit = optionEdit(option, evidence)
  const where = edit ? `In ${edit.file}, line ${edit.line}, give` : 'Give'
  return {
    steps: [`${where} the build the option ${option}.`, rebuild(evidence)],
    edits: edit ? [edit] : [],
  }
}

/** An option behind the builder's words in the script that calls it. */
export function optionEdit(write: string, { survey: { build } }: Evidence): Edit | null {
  return build?.at && build.matched !== null
    ? { file: build.at.file, line: build.at.line, write, after: build.matched }
    : null
}

function plainly(evidence: Evidence): string {
  const command = buildCommandOf(evidence)
  // What an unknown builder does without it, nobody knows.
  return evidence.survey.framework === null
    ? `${command}, with NODE_ENV=production and without a mode for development`
    : `${command}, with NODE_ENV not set and without a mode for development`
}
