import type { Framework } from '../frameworks/framework.ts'
import { frameworks } from '../frameworks/index.ts'
import { extensionOf, type Folder, largestFile, nameOf } from '../model/folder.ts'
import { inferred, type Reading } from '../model/reading.ts'
import { readText } from '../model/text.ts'

/** The framework that a build folder gives away by what is in it, the more particular signs first. */
export async function frameworkFromOutput(
  build: Folder,
  paths: readonly string[],
): Promise<Reading<string> | null> {
  const page = paths.includes('index.html')
    ? 'index.html'
    : paths.find((path) => extensionOf(path) === 'html')
  const html = page === undefined ? '' : ((await readText(build, page, largestFile)) ?? '')
  for (const framework of frameworks) {
    const file = signOf(framework, paths, page, html)
    if (file !== null) return inferred(framework.name, { file, line: 1, column: 1 })
  }
  return null
}

function signOf(
  { signs }: Framework,
  paths: readonly string[],
  page: string | undefined,
  html: string,
): string | null {
  if (page !== undefined && signs?.page?.some((sign) => sign.test(html))) return page
  const found = paths.find((path) => signs?.files?.some((sign) => sign.test(path)))
  return found !== undefined && nameOf(found) !== '' ? found : null
}
