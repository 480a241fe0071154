import type { Framework } from '../../frameworks/framework.ts'
import type { Folder } from '../../model/folder.ts'
import { joinRoute, type SourceRoute } from '../../model/source-route.ts'
import { readText } from '../../model/text.ts'

/** The routes that a framework says it made pages for, in the list it leaves beside them; none when there is no such list. */
export async function listedRoutes(
  project: Folder,
  definition: Framework | null,
  publishDirectory: string | null,
): Promise<SourceRoute[]> {
  const file = publishDirectory === null ? undefined : definition?.routeList?.(publishDirectory)
  const text = file === undefined ? null : await readText(project, file)
  if (file === undefined || text === null) return []
  return Object.keys(routesOf(text)).map((path) => ({
    pattern: joinRoute(path),
    place: { file, line: 1, column: 1 },
    kind: 'file',
  }))
}

function routesOf(text: string): object {
  try {
    const value: unknown = JSON.parse(text)
    const routes = typeof value === 'object' && value !== null && 'routes' in value ? value.routes : null
    return typeof routes === 'object' && routes !== null ? routes : {}
  } catch {
    return {}
  }
}
