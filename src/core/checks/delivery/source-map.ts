import { placeAt } from '../../model/reading.ts'
import { counted, decode } from '../../model/text.ts'
import { type Cause, type CauseFix, defineCheck, type Evidence, rebuild } from '../check.ts'

/** Source maps are published. */
export const sourceMap = defineCheck({
  code: 'delivery/source-map',
  severity: 'note',
  title: 'Source maps are published',
  keywords: ['source map', 'sourcemap'],
  after: ['project/needs-server'],
  run,
})

/** Maps looked into; what holds for these holds for the rest. */
const mostRead = 20
const sourceText = /"sourcesContent"\s*:\s*\[\s*(?:null\s*,\s*)*"/

async function run(evidence: Evidence): Promise<Cause[]> {
  const maps = evidence.facts.filter(({ path }) => path.endsWith('.map'))
  // A server's program is not published, whatever is in it.
  const isProgram = evidence.reported.some(({ check: { code } }) => code === 'project/needs-server')
  if (maps.length === 0 || isProgram) return []
  const withText = await anyHoldsText(
    maps.slice(0, mostRead).map(({ path }) => path),
    evidence,
  )
  const { survey, folder } = evidence
  const requested =
    survey.project === null || survey.definition?.shipsMaps === true || (await asksForMaps(evidence))
  return [
    {
      key: 'maps',
      severity: withText && !requested ? 'caution' : 'note',
      title: withText ? 'Source maps with the sources in them are published' : 'Source maps are published',
      impact: withText
        ? 'Nothing on the page. Whoever opens the developer tools reads the sources, comments and all.'
        : 'Nothing on the page. Whoever opens the developer tools sees the names of the source files.',
      cause: `${folder.name} holds ${counted(maps.length, 'source map')}${withText && !requested ? ', and nothing in the project requests them' : ''}.`,
      places: maps.map(({ path }) => path),
      fix: await withoutMaps(evidence),
    },
  ]
}

/** A setting that asks for maps, in the words of bundlers and frameworks. */
const setting =
  /(?<![\w.])["']?(sourcemap|sourceMap|productionSourceMap|productionBrowserSourceMaps|devtool)["']?[ \t]*:[ \t]*(?:true|["'][\w-]+["'])/g

/** The setting that asks for maps turned off, where the configuration has one, or the framework's own way to have none. */
async function withoutMaps(evidence: Evidence): Promise<CauseFix> {
  const { survey, projectText } = evidence
  const own = survey.definition?.fixes.noMaps
  for (const file of [survey.config?.file, 'angular.json']) {
    const text = file === undefined ? null : await projectText(file)
    const places =
      text === null ? [] : [...text.matchAll(setting)].filter(({ index }) => !isComment(text, index))
    // Which of several is the one of this build only a person knows.
    const [match] = places
    if (file === undefined || text === null || !match?.[1] || places.length > 1) continue
    const write = file.endsWith('.json') ? `"${match[1]}": false` : `${match[1]}: false`
    const { line, column } = placeAt(file, text, match.index)
    const steps = [`To keep them out: in ${file}, line ${line}, write  ${write}`, rebuild(evidence)]
    return { steps, edits: [{ file, line, column, write }] }
  }
  if (own) return { steps: [`To keep them out: ${own}.`, rebuild(evidence)] }
  return {
    steps: [
      'To keep them out: turn source maps off for production, or delete the .map files before the folder is published.',
    ],
  }
}

/** Whether a place is behind the beginning of a comment on its line. */
function isComment(text: string, at: number): boolean {
  return /\/\/|\/\*|^\s*\*/.test(text.slice(text.lastIndexOf('\n', at - 1) + 1, at))
}

async function anyHoldsText(paths: readonly string[], { readFile }: Evidence): Promise<boolean> {
  for (const path of paths) {
    const bytes = await readFile(path)
    if (bytes && sourceText.test(decode(bytes))) return true
  }
  return false
}

const asks = /source-?maps?\b(?!['"]?\s*[:=]\s*(?:false|0)\b)|\bdevtool\b(?!['"]?\s*:\s*false)/i

/** Whether the configuration, or the build command, speaks of maps and does not turn them off. */
async function asksForMaps({ survey, projectText }: Evidence): Promise<boolean> {
  for (const file of [survey.config?.file, 'package.json', 'angular.json', 'tsconfig.json']) {
    if (file !== undefined && asks.test((await projectText(file)) ?? '')) return true
  }
  return false
}
