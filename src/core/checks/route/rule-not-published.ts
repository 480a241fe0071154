import { nameOf } from '../../model/folder.ts'
import { counted } from '../../model/text.ts'
import { type Cause, type Evidence, type Judge, rebuild } from '../check.ts'

/** The host's rules lie beside the sources and never reach it. */
export const ruleNotPublished: Judge = {
  code: 'route/rule-not-published',
  severity: 'caution',
  title: 'A rule file is not in the published folder',
  meaning:
    'A file with rules for the host lies in the project, and the host reads such a file from the folder it publishes. The build ' +
    'does not copy it there, so none of its rules holds: deep links answer errors although the rule is written.',
  example: 'The rule file lies beside package.json; the build copies only what lies in public/.',
  remedies: {
    any: 'Move the file to the directory that the build copies as it is, then rebuild.',
    vite: 'Move the file to public/, then rebuild.',
    angular: 'Name the file in "assets" of angular.json, then rebuild.',
  },
  after: [],
  judge,
}

function judge(evidence: Evidence): Cause[] {
  const { ruleFiles, folder, asked } = evidence
  if (!folder.present) return []
  return ruleFiles.declared.flatMap(({ file, kind, rules }): Cause[] => {
    const name = nameOf(file)
    if (kind !== 'text' || asked.index.has(name)) return []
    const [first] = rules
    return [
      {
        key: file,
        meets: `An error page where a rule should answer, as at ${first?.from}.`,
        cause: `${file} holds ${counted(rules.length, 'rule')} for the host, and ${folder.name} has no ${name}.`,
        showings: [],
        source: first?.place ?? { file, line: 1, column: 1 },
        remedy: {
          steps: [`Move ${file} to where the build copies files from as they are.`, rebuild(evidence)],
          change: null,
        },
      },
    ]
  })
}
