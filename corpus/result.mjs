// What a variant's check came to against what was expected, and a line of it for a person.
import { checks } from '../dist/core/checks/index.js'

const known = new Set(checks.map(({ code }) => code))

export function compare(report, spec, change) {
  const expected = { ...spec.readings, ...change.readings }
  const wrong = []
  for (const [name, value] of Object.entries(expected)) {
    const read = report.survey[name]?.value ?? null
    if (JSON.stringify(read) !== JSON.stringify(value))
      wrong.push(`${name} is ${JSON.stringify(value)}, read ${JSON.stringify(read)}`)
  }
  const all = change.findings ?? []
  const pending = all.filter((code) => !known.has(code))
  const due = all.filter((code) => known.has(code)).sort()
  const heavy = report.findings.filter(({ severity }) => severity !== 'note')
  const got = [...new Set(heavy.map(({ code }) => code))].sort()
  for (const code of due) if (!got.includes(code)) wrong.push(`${code} was missed`)
  for (const code of got) {
    if (due.includes(code)) continue
    const { cause, impact, places } = heavy.find((finding) => finding.code === code)
    wrong.push(
      `${code} is a false alarm: ${impact} ${cause} ${places
        .slice(0, 3)
        .map(({ file, line, excerpt }) => `${file}:${line} ${excerpt}`)
        .join(' | ')}`,
    )
  }
  return {
    version: report.survey.frameworkVersion?.value ?? null,
    readings: Object.keys(expected).length,
    readingsRight: Object.keys(expected).length - wrong.filter((line) => line.includes(', read ')).length,
    expected: due,
    found: got,
    pending,
    wrong,
  }
}

export function failedResult(problem) {
  return {
    version: null,
    readings: 0,
    readingsRight: 0,
    expected: [],
    found: [],
    pending: [],
    wrong: [problem],
  }
}

export function print({
  project,
  variant,
  readings,
  readingsRight,
  found,
  pending,
  wrong,
  buildSeconds = 0,
  checkSeconds = 0,
  removed,
}) {
  const state = wrong.length === 0 ? 'ok  ' : 'FAIL'
  const codes = [...found, ...pending.map((code) => `(${code})`)].join(' ') || 'clear'
  console.log(
    `${state} ${project.padEnd(15)} ${variant.padEnd(24)} ${`${readingsRight}/${readings}`.padEnd(6)} ${codes.padEnd(28)} ${buildSeconds.toFixed(1).padStart(6)} s ${checkSeconds.toFixed(2).padStart(6)} s`,
  )
  if (removed)
    console.log(
      `       ${removed.files} files taken away in turn: ${removed.found} of ${removed.requested} that are needed were missed by name`,
    )
  for (const line of wrong) console.log(`       ${line}`)
}
