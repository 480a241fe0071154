import type { Place } from '../../model/reading.ts'
import { decode } from '../../model/text.ts'
import type { Cause, Evidence } from '../check.ts'

/** A comment that is all an element holds: something is to be put in its place. */
const outlet = />\s{0,200}(<!--[\w\s:./-]{1,60}-->)\s{0,200}<\//g

/** Beside a site, its server is in the top directory, or in one that says so. */
const ofServer = /^(?:server\/)?[\w.-]+\.[cm]?[jt]s$/
const mostFiles = 20

/** The entry page is a template: a source puts what it makes in the place of a comment, and nobody did in this build. */
export async function serverTemplate(evidence: Evidence): Promise<Cause[]> {
  const { facts, folder, host, readFile } = evidence
  const page = facts.find(({ path }) => path === host.directoryIndex)?.path
  const bytes = page === undefined ? null : await readFile(page)
  if (page === undefined || bytes === null) return []
  const text = decode(bytes)
  for (const [, comment = ''] of text.matchAll(outlet)) {
    const filler = await fillerOf(comment, evidence)
    if (filler === null) continue
    const offset = text.indexOf(comment)
    return [
      {
        key: 'template',
        severity: 'caution',
        title: 'The page is a template that a server fills',
        impact: `The page begins without what ${filler.file} puts into it. Where its scripts count on that, it stays so.`,
        cause: `${folder.name}/${page} holds ${comment}, and ${filler.file}, line ${filler.line}, puts the page's content in its place; a host of files sends it as it is.`,
        places: [{ file: page, offset, length: comment.length }],
        source: filler,
        fix: [
          `Run ${filler.file} where the site is served, or have a script make the pages after the build.`,
          'Where the scripts draw the whole page by themselves, waive this.',
        ],
      },
    ]
  }
  return []
}

/** Where a script names the comment in a text: to put something else there. */
async function fillerOf(comment: string, { sources, projectText }: Evidence): Promise<Place | null> {
  const quoted = new RegExp(`['"\`]${comment.replace(/[./]/g, '\\$&')}`)
  let asked = 0
  for (const file of sources.files.filter((each) => /\.[cm]?[jt]s$/.test(each))) {
    // Texts that tell a survey nothing are not kept.
    const isLeft = sources.texts.get(file) === undefined && ofServer.test(file) && asked++ < mostFiles
    const text = isLeft ? await projectText(file) : sources.texts.get(file)
    const at = text?.search(quoted) ?? -1
    if (at < 0) continue
    const before = text?.slice(0, at + 1).split('\n') ?? []
    return { file, line: before.length, column: (before.at(-1)?.length ?? 0) + 1 }
  }
  return null
}
