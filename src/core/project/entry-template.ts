import { type Folder, filesBelow, joinPath, nameOf } from '../model/folder.ts'
import { entryTemplate, holdsPage } from './what-is-here.ts'

/** A template that a server fills in and sends as the entry page, and the page it stands for. */
export interface EntryTemplate {
  readonly template: string
  readonly page: string
}

/** The template that is plainly the page of a folder without any: the only one of its name. Null when there is none. */
export async function entryTemplateOf(build: Folder): Promise<EntryTemplate | null> {
  if (await holdsPage(build)) return null
  const paths = await filesBelow(build, () => true)
  const [template, ...others] = paths.filter((path) => entryTemplate.test(nameOf(path)))
  if (template === undefined || others.length > 0 || paths.some((path) => path.endsWith('.html'))) return null
  return { template, page: joinPath(template, '..', 'index.html') }
}

/** The folder as its server sends it: with the page in place of the template. */
export function withPage(build: Folder, { template, page }: EntryTemplate): Folder {
  const at = (path: string): string => (path === page ? template : path)
  const { readUtf8 } = build
  return {
    label: build.label,
    read: (path, most) => build.read(at(path), most),
    stat: (path) => build.stat(at(path)),
    list: async (directory) =>
      (await build.list(directory)).map((entry) =>
        joinPath(directory, entry.name) === template ? { ...entry, name: nameOf(page) } : entry,
      ),
    ...(readUtf8 ? { readUtf8: (path: string, most?: number) => readUtf8.call(build, at(path), most) } : {}),
  }
}

/** A report that names the file that is there: the template, and not the page that it stands for. */
export function namingTemplate<T>(data: T, { template, page }: EntryTemplate): T {
  const renamed = (value: unknown): unknown => {
    if (value === page) return template
    if (Array.isArray(value)) return value.map(renamed)
    if (typeof value !== 'object' || value === null) return value
    return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, renamed(each)]))
  }
  return renamed(data) as T
}
