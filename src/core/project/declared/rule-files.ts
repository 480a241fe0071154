import { extensionOf, type Folder, listIfThere } from '../../model/folder.ts'
import type { Place } from '../../model/reading.ts'
import type { Rule } from '../../model/rule.ts'
import { readText } from '../../model/text.ts'
import type { Folded } from '../../syntax/value.ts'
import { statusRuleOf } from './status-rules.ts'
import { readData, visitData } from './visit-data.ts'

/** A file that holds rules for a host, known by its shape alone. */
export interface RuleFile {
  readonly file: string
  /** `text`: one rule a line. It must be in the published folder. `data`: lists in a file that a host reads from the repository. */
  readonly kind: 'text' | 'data'
  readonly rules: readonly Rule[]
}

/** Larger files are no rules; bytes. */
const largest = 262_144

/** The rule files in one directory of a folder. */
export async function ruleFilesIn(folder: Folder, directory = ''): Promise<RuleFile[]> {
  const found: RuleFile[] = []
  for (const { name, kind } of (await listIfThere(folder, directory)) ?? []) {
    const extension = extensionOf(name)
    const isText = (extension === '' || extension === 'txt') && !name.startsWith('.')
    const isData =
      ['json', 'yaml', 'yml', 'toml', 'xml'].includes(extension) &&
      !/^package(?:-lock)?\.json$|^tsconfig/.test(name)
    if (kind !== 'file' || (!isText && !isData)) continue
    const file = directory === '' ? name : `${directory}/${name}`
    const stat = await folder.stat(file)
    if (!stat || stat.size > largest) continue
    const rules = isText
      ? rulesOfText(file, (await readText(folder, file)) ?? '')
      : await rulesIn(folder, file)
    if (rules.length > 0) found.push({ file, kind: isText ? 'text' : 'data', rules })
  }
  return found
}

const ruleLine = /^(\/\S*)\s+(\S+)(?:\s+(\d{3})(!)?)?((?:\s+\S+)*)$/
const target = /^(?:\/\S*|https?:\/\/\S+)$/

/** One rule a line: from, to, and if it is said a status, with "!" where files give way too. Empty when the text has another shape. */
export function rulesOfText(file: string, text: string): Rule[] {
  const found: Rule[] = []
  for (const [index, line] of text.split(/\r?\n/).entries()) {
    const written = line.replace(/(?:^|\s)#.*$/, '').trim()
    if (written === '') continue
    const match = ruleLine.exec(written)
    if (!match || !target.test(match[2] ?? '')) return []
    const [, from = '', to = '', status = '301', forced, rest = ''] = match
    const conditions = rest.trim() === '' ? [] : rest.trim().split(/\s+/)
    found.push({
      from,
      to,
      status: Number(status),
      forced: forced === '!',
      conditions,
      place: { file, line: index + 1, column: 1 },
    })
  }
  return found
}

const sources = ['from', 'source', 'src', 'path', 'match']
const targets = ['to', 'destination', 'dest', 'target']
const statuses = ['status', 'statusCode', 'code']

async function rulesIn(folder: Folder, file: string): Promise<Rule[]> {
  const data = await readData(folder, file)
  return data ? rulesOfData(data) : []
}

function rulesOfData(value: Folded): Rule[] {
  const found: Rule[] = []
  visitData(value, (item, { keys, isItem }) => {
    // A list of one is an object in XML.
    const rule = isItem
      ? (ruleOf(item, keys.at(-1) ?? '') ?? statusRuleOf(item))
      : statusRuleIn(item, keys.at(-1) ?? '')
    if (rule) found.push(rule)
    return rule === null
  })
  return found
}

/** A single rule that stands where a list of them could. */
function statusRuleIn(item: Folded, name: string): Rule | null {
  return /rules?$/i.test(name) ? statusRuleOf(item) : null
}

/** An object with a source and a destination is a rule; the name of its list tells whether it sends a visitor on. */
function ruleOf(value: Folded, list: string): Rule | null {
  if (value.kind !== 'object') return null
  const get = (names: readonly string[]): unknown => {
    for (const name of names) {
      const member = value.members.get(name)
      if (member?.kind === 'value') return member.value
    }
    return undefined
  }
  const from = get(sources)
  const to = get(targets)
  if (typeof from !== 'string' || typeof to !== 'string' || !from.startsWith('/') || !target.test(to))
    return null
  const said = Number(get(statuses))
  const permanent = get(['permanent'])
  const usual = /redirect/i.test(list) ? (permanent === true ? 308 : permanent === false ? 307 : 301) : 200
  const others = ['has', 'missing', 'conditions', 'condition', 'headers'].filter((name) =>
    value.members.has(name),
  )
  // What a pattern of another kind takes can't be said.
  if (/[()?+{}|^$\\]/.test(plainSource(from))) others.push(from)
  return {
    from: plainSource(from),
    to: plainSource(to),
    status: Number.isInteger(said) && said >= 200 && said < 600 ? said : usual,
    forced: get(['force', 'forced']) === true,
    conditions: others,
    place: value.at,
  }
}

/** `/:rest*`, `/(.*)`, `/**` and `/$1` as the model writes them. */
function plainSource(path: string): string {
  return path
    .replace(/\/:\w+[*+]$|\/\(\.\*\)$|\/\*\*$/, '/*')
    .replace(/\/\$1$/, '/:splat')
    .replace(/^(\S*\/):\w+\*$/, '$1:splat')
}

/** Rules of a folder speak from its top: where none of them names the base path, all are below it. */
export function rulesAt(base: string, rules: readonly Rule[]): readonly Rule[] {
  const top = base.slice(0, -1)
  if (base === '/' || rules.some(({ from }) => from === top || from.startsWith(base))) return rules
  const below = (path: string): string => (path.startsWith('/') ? top + path : path)
  return rules.map((rule) => ({
    ...rule,
    from: below(rule.from),
    to: rule.to === null ? null : below(rule.to),
  }))
}

/** Where a file is, for a person. */
export function describePlace(place: Place | null): string {
  return place ? `${place.file}:${place.line}` : 'the host file'
}
