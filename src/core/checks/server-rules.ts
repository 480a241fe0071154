import { answer } from '../host/answer.ts'
import type { Answer } from '../host/host.ts'
import type { Directive } from '../host/nginx/directives.ts'
import type { Context } from '../host/nginx/server.ts'
import type { RouteAnswer } from '../model/report.ts'
import type { CauseFix } from './cause.ts'
import type { Evidence, Known } from './evidence.ts'

/** What the host says to a path of the site. */
export function answerTo(path: string, { host, site, requested }: Known): Answer {
  return answer(host, site, requested.index, path)
}

/** Whether the configuration of the server holds something that is not followed where all of these are answered. */
export function areUnclear(paths: readonly string[], evidence: Evidence): boolean {
  if (!evidence.host.server || paths.length === 0) return false
  return paths.every((path) => answerTo(path, evidence).unclear !== undefined)
}

/** Whether nothing is known to answer, and the server's own configuration, which is not at hand, may hold what does. */
export function mayBeAnswered({ host: { server } }: Known, { answeredBy }: RouteAnswer): boolean {
  return server?.kind === 'httpd' && server.directives === null && answeredBy.startsWith('nothing')
}

const again = 'Then let the server read its configuration again.'

/** A line in place of a directive, in the configuration that has it; null where that is written over several lines. */
export function lineInstead({ place: { file, line }, source }: Directive, write: string): CauseFix | null {
  if (source === '' || source.includes('\n')) return null
  return {
    steps: [`In ${file}:${line}, write  ${write}  in place of  ${source}`, again],
    edits: [{ file, line, instead: source, write }],
  }
}

/** Lines at the beginning of a block; null where its head is written over several lines, or is not in a file. */
export function lineIn(
  { place: { file, line, column }, source }: Context,
  ...lines: readonly string[]
): CauseFix | null {
  if (file === '' || source === '' || source.includes('\n')) return null
  const indent = ' '.repeat(column + 3)
  return {
    steps: [`In ${file}, after line ${line}, write  ${lines.join(' ')}`, again],
    edits: [
      { file, line, instead: source, write: [source, ...lines.map((each) => indent + each)].join('\n') },
    ],
  }
}
