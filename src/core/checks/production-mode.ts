import type { Edit } from '../model/report.ts'
import { buildCommandOf, type CauseFix, type Evidence } from './check.ts'

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

function plainly(evidence: Evidence): string {
  return `${buildCommandOf(evidence)}, with NODE_ENV not set and without a mode for development`
}
