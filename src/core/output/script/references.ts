import type { Reference } from '../../model/reference.ts'
import type { Mentions } from '../words.ts'
import { chunksOf } from './chunk-runtime.ts'
import { codeBefore, type Literal, type Literals } from './literal.ts'
import { moduleReference } from './module-syntax.ts'
import {
  inMarkup,
  inPayload,
  inSrcset,
  inStyles,
  isPartOfPath,
  joinedPattern,
  lastName,
  namedFile,
  namePattern,
  opensUrl,
  patternInMarkup,
} from './named-files.ts'
import { continueList, holdsPreloadLists, type PreloadList } from './preload-list.ts'
import { isStored, storedFile, storedLists, storedWord } from './stored-files.ts'

/** What a script requests, seen in its literals. */
export function referencesOf(code: string, literals: Literals, mentions: Mentions): Reference[] {
  const found: Reference[] = []
  const preloads = holdsPreloadLists(mentions)
  const stored = mentions.has(storedWord) ? storedLists(code) : []
  let list: PreloadList | null = null
  let before: Literal | null = null
  let isParted = false
  let open: Literal | null = null
  let whole: Literal | null = null
  for (const literal of literals.telling) {
    if (open !== null) found.push(...patternInMarkup(code, open, literal))
    if (open === null || !isPartOfPath(literal)) open = opensUrl(literal) ? literal : null
    if (preloads) list = continueList(code, literal, list)
    if (list) found.push(preload(literal))
    else if (stored.length > 0 && isStored(stored, literal)) found.push(...storedFile(literal))
    else if (!literal.first || !literal.last) {
      const pattern = literal.last && before ? namePattern(code, before, literal, isParted) : []
      found.push(...(literal.last && pattern.length === 0 ? lastName(literal) : pattern))
      // The tags that stand whole between two holes: `<p>${x}</p><img src="/a.png">`.
      if (literal.value.includes('<')) found.push(...inMarkup(code, literal))
      isParted = !literal.first
      before = literal.first ? literal : literal.last ? null : before
    } else {
      if (whole !== null) found.push(...joinedPattern(code, whole, literal))
      whole = literal
      found.push(...inLiteral(code, literal))
    }
  }
  return [...found, ...(mentions.has('.u=') ? chunksOf(code) : [])]
}

/** A literal may be a name by itself, or hold names: in markup, styles or data. */
function inLiteral(code: string, literal: Literal): Reference[] {
  const { value } = literal
  if (value.length > 40 && /["'`]/.test(value) && !value.includes('<')) return inPayload(code, literal)
  if (value.includes('url(')) return inStyles(code, literal)
  if (value.includes('<')) return inMarkup(code, literal)
  if (value.length > 2_048) return []
  const syntax = moduleReference(code, literal) ?? navigation(code, literal)
  if (syntax) return [syntax]
  return value.includes(' ') ? inSrcset(code, literal) : namedFile(code, literal)
}

/** What sends the visitor to another page. */
const sending = /(?:\blocation(?:\.href)?=|\blocation\.(?:assign|replace)\(|(?:^|[^\w$.]|\bwindow\.)open\()$/
/** A path from the top of the host that is no file. */
const pagePath = /^\/(?!\/)[\w~./-]*$(?<!\.(?!html?$)\w{1,8})/

function navigation(code: string, { value: raw, start: offset, end }: Literal): Reference | null {
  if (!pagePath.test(raw) || !sending.test(codeBefore(code, offset - 1))) return null
  return { kind: 'navigation', raw, against: 'document', offset, length: end - offset }
}

function preload({ value: raw, start: offset, end }: Literal): Reference {
  return { kind: 'preload', raw, against: 'bundle-base', offset, length: end - offset }
}
