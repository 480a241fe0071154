// Follows the fixes of a faulty variant to the letter: makes their edits, builds again, and checks that the findings are gone
// and no other has come.
import { spawnSync } from 'node:child_process'
import { rm, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { fixable, neededBy, outcomesOf, variablesOf } from '../dist/core/edits/outcome.js'
import { writeEdits } from '../dist/node/fixing/try-fixes.js'
import { environmentOfBuilds } from './environment.mjs'

/** Why a finding of a code is by words, where its variant says nothing of its own. */
const reasons = {
  'env/private-value':
    'what needs the value must move to a server, and which one that is only a person knows',
  'route/no-answer':
    "the host's own configuration is not in the project, and one route stands for many addresses",
  'project/needs-server': 'another adapter is a package to install, and which one depends on the host',
}

/** What became of the fix of every finding: its code, `proved`, `words` where it has no edits, or what went wrong. */
export async function followFixes(
  home,
  { report, hidden = [], base, directory, command, again, byWords = {} },
) {
  const before = report.findings
  const reported = before.filter(({ severity }) => severity !== 'note')
  const fixes = fixable(reported, valuesFor(reported, base))
  const words = reported
    .filter((finding) => !fixes.some((fix) => fix.finding === finding))
    .map(({ code }) => ({ code, state: 'words', because: byWords[code] ?? reasons[code] }))
  if (fixes.length === 0) return words
  writeEdits(fixes, join(home, directory))
  // A copy has neither the last output nor what a builder kept of it.
  for (const kept of [report.survey.publishDirectory?.value, '.cache', '.parcel-cache', '.angular'])
    if (kept) await rm(join(home, directory, kept), { recursive: true, force: true })
  const ran = built(home, command, variablesOf(fixes))
  if (ran !== null)
    return [...words, ...fixes.map(({ finding }) => ({ code: finding.code, state: 'not built', why: ran }))]
  const after = (await again(variablesOf(fixes))).findings
  const { states, fresh } = outcomesOf(fixes, [...before, ...hidden], after)
  const why = fresh.map(({ code, cause }) => `${code}: ${cause}`).join(' | ')
  return [
    ...words,
    ...fixes.map(({ finding: { code, fingerprint } }) => ({
      code,
      state: states.get(fingerprint),
      ...(why ? { why } : {}),
    })),
  ]
}

/** What a person would give: the corpus has one service, and one base path. */
function valuesFor(findings, base) {
  const names = findings.flatMap(neededBy)
  return new Map(
    names.map((name) => [
      name,
      /BASE$/.test(name) ? base : /KEY|TOKEN|ID$/.test(name) ? 'k7Qp' : 'https://api.skerryline.example',
    ]),
  )
}

function built(home, command, variables) {
  const ran = spawnSync('sh', ['-c', `PATH="$PWD/node_modules/.bin:$PATH" ${command}`], {
    cwd: home,
    encoding: 'utf8',
    env: { ...environmentOfBuilds(), ...variables },
    timeout: 600_000,
  })
  return ran.status === 0 ? null : `${ran.stdout}${ran.stderr}`.trim().split('\n').slice(-4).join(' | ')
}

/** The table of all fixes that were followed: by code and framework. */
export async function writeFixTable(file, results) {
  const rows = results.flatMap(({ title, variant, fixes = [] }) =>
    fixes.map((fix) => ({ title, variant, ...fix })),
  )
  const codes = [...new Set(rows.map(({ code }) => code))].sort()
  const count = (list, state) => list.filter((each) => each.state === state).length
  const lines = codes.map((code) => {
    const own = rows.filter((row) => row.code === code)
    const titles = (state) =>
      [...new Set(own.filter((row) => row.state === state).map(({ title }) => title))].sort()
    const left = own
      .filter(({ state }) => state !== 'proved' && state !== 'words')
      .map(({ title, variant, state }) => `${title}, ${variant}: ${state}`)
    return `| \`${code}\` | ${count(own, 'proved')} | ${count(own, 'words')} | ${own.length - count(own, 'proved') - count(own, 'words')} | ${titles('proved').join(', ')} | ${left.join('; ')} |`
  })
  const why = new Map()
  for (const { title, code, state, because } of rows) {
    if (state !== 'words') continue
    const key = `\`${code}\`: ${because}`
    why.set(key, [...(why.get(key) ?? []), title])
  }
  const wordsOnly = [...why].map(([reason, titles]) => `- ${reason} (${[...new Set(titles)].join(', ')})`)
  const total = rows.length
  await writeFile(
    file,
    `# Fixes

\`wardoscope fix\` checks a project, makes the edits that its findings carry in a copy beside it, runs the build command there, checks the new folder, and
says of each finding: proved (it is gone, and nothing new has come), not enough, or worse. The proved edits are printed as a patch that
\`git apply\` takes; \`--write\` makes them in the project, unless a file that they change has changes which are not committed (\`--anyway\`).
\`--code\` takes findings of one code, \`--no-build\` gives the edits unproved, \`--value NAME=value\` gives a variable what it lacks: such a value is
written into the environment file, or given to the build where no file sets such variables, and printed nowhere. The build runs in the copy alone, is ended after \`--timeout\` seconds, and the copy
is cleared away. In JSON each edit has \`range\`, \`expects\` and \`text\`, relative to the project's directory; in SARIF they are \`fixes\`.

What a finding says to do is done to the letter: \`npm run corpus -- --fixes\` makes the edits of every faulty variant of the corpus, builds
it again with its own tools, and checks it. **Proved** means that the finding is gone and no other has come. **By words** means that
the steps tell a person what to do, and no program can know the edit. Variables get the value of the corpus's one service. The table is written by that run.

The starters that frameworks hand out are followed in the same way (\`npm run starters -- --fixes\`), each built untouched and then served below a path. On
2026-12-01, of 19 that are static, 18 were sound after one build with all their edits; one loads a picture from a path that a package of its own
writes (Ember's welcome page).

Of ${total} findings ${count(rows, 'proved')} are proved, ${count(rows, 'words')} are by words alone, and ${total - count(rows, 'proved') - count(rows, 'words')} are neither.

| code | proved | by words | neither | proved with | neither |
| --- | ---: | ---: | ---: | --- | --- |
${lines.join('\n')}

## By words, and why

${wordsOnly.sort().join('\n')}
`,
  )
}
