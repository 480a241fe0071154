import { nameOf } from '../../model/folder.ts'
import { counted } from '../../model/text.ts'
import { type Cause, type Check, type Evidence, rebuild } from '../check.ts'

/** The host's rules are beside the sources and never reach it. */
export const ruleNotPublished: Check = {
  code: 'route/rule-not-published',
  severity: 'caution',
  title: 'A rule file is not in the published folder',
  keywords: ['redirect file', 'rewrite rules', '.htaccess'],
  meaning:
    'A file with rules for the host is in the project, and the host reads such a file from the folder it publishes. The build ' +
    'does not copy it there, so none of its rules holds: deep links answer errors although the rule is written.',
  example: 'The rule file is beside package.json; the build copies only what is in public/.',
  fixes: {
    any: 'Move the file to the directory that the build copies as it is, then rebuild.',
    vite: 'Move the file to public/, then rebuild.',
    angular: 'Name the file in "assets" of angular.json, then rebuild.',
  },
  after: [],
  run,
}

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
        places: [],
        source: first?.place ?? { file, line: 1, column: 1 },
        fix: {
          steps: [`Move ${file} to where the build copies files from as they are.`, rebuild(evidence)],
        },
      },
    ]
  })
}
