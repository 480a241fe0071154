import { nameOf } from '../../model/folder.ts'
import { counted } from '../../model/text.ts'
import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'

/** The host's rules are beside the sources and never reach it. */
export const ruleNotPublished = defineCheck({
  code: 'route/rule-not-published',
  severity: 'caution',
  title: 'A rule file is not in the published folder',
  keywords: ['redirect file', 'rewrite rules', '.htaccess'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const { ruleFiles, folder, requested } = evidence
  if (!folder.present) return []
  return ruleFiles.declared.flatMap(({ file, kind, rules }): Cause[] => {
    const name = nameOf(file)
    if (kind !== 'text' || requested.index.has(name)) return []
    const [first] = rules
    return [
      {
        key: file,
        impact: `An error page where a rule should answer, as at ${first?.from}.`,
        cause: `${file} holds ${counted(rules.length, 'rule')} for the host, and ${folder.name} has no ${name}.`,
        source: first?.place ?? { file, line: 1, column: 1 },
        fix: [`Move ${file} to where the build copies files from as they are.`, rebuild(evidence)],
      },
    ]
  })
}
