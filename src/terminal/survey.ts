import { describeOrigin, type Origin } from '../core/model/reading.ts'
import type { SurveyReport } from '../core/model/report.ts'
import { counted } from '../core/model/text.ts'
import { isWritten } from '../core/project/declared/declarations.ts'
import { cut, type Style, wrap } from './style.ts'

interface AnyReading {
  readonly value: string | readonly string[] | null
  readonly from: Origin
  readonly certainty: string
  readonly expression?: string | undefined
  readonly dependsOn?: string | undefined
  readonly setAt?: Origin | undefined
  readonly inactive?: { readonly because: string } | undefined
}

const labelWidth = 21

/** What names the address, in words for a row. */
const addressLabel = {
  configuration: 'named address',
  homepage: 'homepage',
  'domain file': 'domain',
  repository: 'repository path',
} as const

/** The survey for a person: a line for each reading, with where it was read. */
export function renderSurvey(survey: SurveyReport, style: Style): string {
  const { colors, width } = style
  const rows: [string, string, string][] = []
  const add = (label: string, reading: AnyReading | null, none = 'not known'): void => {
    rows.push(reading ? [label, textOf(reading), originOf(reading)] : [label, none, ''])
  }
  add('project', survey.project)
  add('framework', survey.framework)
  add('version', survey.frameworkVersion)
  add('package manager', survey.packageManager)
  add('install with', survey.installCommand)
  add('build with', survey.buildCommand)
  if (survey.buildCommand?.script) rows.push(['which runs', survey.buildCommand.script, ''])
  add('publish directory', survey.publishDirectory)
  add('base path', survey.basePath)
  for (const { value, from, kind } of survey.addresses)
    rows.push([addressLabel[kind], value, describeOrigin(from)])
  add('output', survey.output)
  if (survey.router) add('router', survey.router)
  if (survey.routerBase) add('router base', survey.routerBase)
  add('mode', survey.mode)
  add('public variables', survey.environment.prefixes)
  add('dev server forwards', survey.devProxy)
  if (survey.nodeVersion) add('Node required', survey.nodeVersion)
  const widestValue = Math.max(...rows.map(([, value]) => value.length))
  const valueWidth = Math.min(widestValue, width - labelWidth - 34)
  const lines = [colors.bold(survey.directory), '']
  for (const [label, value, from] of rows) {
    const shown = wrap(value, valueWidth)
    lines.push(
      `  ${colors.cyan(label.padEnd(labelWidth))}${(shown[0] ?? '').padEnd(valueWidth)}  ${colors.dim(from)}`.trimEnd(),
    )
    for (const more of shown.slice(1)) lines.push(`  ${' '.repeat(labelWidth)}${more}`)
  }
  lines.push(
    ...routeLines(survey, style),
    ...environmentLines(survey, style),
    ...declarationLines(survey, style),
  )
  for (const remark of survey.remarks) lines.push('', ...wrap(remark, width - 2).map((line) => `  ${line}`))
  if (survey.projects.length > 1) lines.push('', ...projectLines(survey, style))
  return `${lines.join('\n')}\n`
}

function declarationLines(
  { declarations, publishDirectory, projects }: SurveyReport,
  { colors, width }: Style,
): string[] {
  if (declarations.length === 0) return []
  const lines = ['', `  ${colors.bold('Declared in deploy and pipeline files')}`]
  for (const { kind, value, place } of declarations) {
    const written = publishDirectory?.value ?? null
    const agrees =
      kind !== 'publish-directory' || isWritten(value, written, projects) ? '' : '  not what the build writes'
    lines.push(
      `    ${cut(`${kind.replace('-', ' ')} ${value}`, width - 40).padEnd(labelWidth + 14)}${colors.dim(`${place.file}:${place.line}`)}${agrees}`,
    )
  }
  return lines
}

/** The projects of a repository, a line each. */
export function projectLines(
  survey: Pick<SurveyReport, 'projects' | 'choice'>,
  { colors, width }: Style,
): string[] {
  const rows = survey.projects.map((each) => {
    const { directory, framework, server, buildCommand, publishDirectory, basePath } = each
    const builder = framework ?? (server ? `server (${server})` : 'no framework known')
    const built = framework
      ? [buildCommand ?? '', publishDirectory ?? 'not known', basePath ?? 'not known']
      : []
    return [directory || '.', builder, ...built]
  })
  const head = ['directory', 'built with', 'command', 'publish directory', 'base path']
  const widths = head.map(
    (label, column) => Math.max(label.length, ...rows.map((row) => row[column]?.length ?? 0)) + 2,
  )
  const lines = [
    `  ${colors.bold('Projects in this repository')}${survey.choice ? `: ${survey.choice}` : ''}`,
  ]
  const lineOf = (row: readonly string[]): string =>
    row
      .map((cell, column) => cut(cell, width - 4).padEnd(widths[column] ?? 0))
      .join('')
      .trimEnd()
  lines.push(`    ${colors.dim(lineOf(head))}`, ...rows.map((row) => `    ${lineOf(row)}`))
  return lines
}

/** Routes shown of one project; the JSON has all. */
const mostRoutes = 12

function routeLines({ routes, projects }: SurveyReport, { colors, width }: Style): string[] {
  const [first] = routes
  if (!first) return []
  // Beside a list of projects there is no room for another.
  if (projects.length > 1) {
    const where = colors.dim(cut(`the first at ${first.place.file}:${first.place.line}`, width - 44))
    return ['', `  ${colors.bold('Routes the sources give pages to')}: ${routes.length}, ${where}`]
  }
  const shown = routes.slice(0, mostRoutes)
  const longest = Math.min(48, Math.max(...shown.map(({ pattern }) => pattern.length)))
  const lines = ['', `  ${colors.bold('Routes the sources give pages to')}`]
  for (const { pattern, place } of shown) {
    lines.push(
      `    ${cut(pattern, longest).padEnd(Math.max(longest, labelWidth + 2) + 2)}${colors.dim(cut(`${place.file}:${place.line}`, width - 40))}`,
    )
  }
  if (routes.length > mostRoutes)
    lines.push(`    ${colors.dim(`and ${counted(routes.length - mostRoutes, 'more route')}`)}`)
  return lines
}

function environmentLines({ environment }: SurveyReport, { colors, width }: Style): string[] {
  const lines: string[] = []
  const listed = (title: string, files: SurveyReport['environment']['files']): void => {
    if (files.length > 0) lines.push('', `  ${colors.bold(title)}`)
    for (const { file, names } of files)
      lines.push(`    ${cut(`${file}: ${names.map(({ name }) => name).join(', ') || 'none'}`, width - 4)}`)
  }
  listed('Variables defined for production', environment.files)
  listed('Variables named by deploy and pipeline files', environment.deploy)
  const names = [...new Set(environment.reads.map(({ name }) => name))]
  if (names.length === 0) return lines
  lines.push('', `  ${colors.bold('Variables the sources read')}`)
  for (const name of names) {
    const reads = environment.reads.filter((read) => read.name === name)
    const first = reads[0]?.place
    const more = reads.length > 1 ? ` and ${counted(reads.length - 1, 'more place')}` : ''
    const guard = reads.every(({ guarded }) => guarded) ? ', with a fallback' : ''
    lines.push(
      `    ${name.padEnd(labelWidth + 4)}${colors.dim(`${first?.file}:${first?.line}${more}${guard}`)}`,
    )
  }
  return lines
}

function textOf({ value, expression }: AnyReading): string {
  if (value === null) return `computed: ${expression ?? 'by code'}`
  if (typeof value === 'string') return value
  return value.length === 0 ? 'none' : value.join(', ')
}

function originOf({ from, certainty, dependsOn, setAt, inactive }: AnyReading): string {
  const where = certainty === 'inferred' ? `inferred from ${describeOrigin(from)}` : describeOrigin(from)
  if (inactive) return `${where}, not in force`
  if (dependsOn === undefined) return where
  return setAt
    ? `${where}, with ${dependsOn} of ${describeOrigin(setAt)}`
    : `${where}, unless ${dependsOn} is set`
}
