import { lookedElsewhere } from '../../host/nginx/host.ts'
import { fails } from '../../requests/request.ts'
import { type Cause, defineCheck, type Evidence } from '../check.ts'
import { routePlace } from '../route-place.ts'

/** A container puts the folder into another directory than the one that its server looks in. */
export const misplaced = defineCheck({
  code: 'project/misplaced',
  severity: 'blocker',
  title: 'The server looks for the site in another directory',
  keywords: ['Dockerfile', 'COPY', 'root', 'alias', 'container', 'nginx'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const { host, site, requested, folder } = evidence
  const { server } = host
  const looked = server?.kind === 'nginx' ? lookedElsewhere(server, site) : null
  const { directory = '', place = null } = server?.mount ?? {}
  const routes = requested.routes.filter(({ status }) => status >= 400)
  const requests = requested.requests.filter(fails)
  if (looked === null || place === null || routes.length + requests.length === 0) return []
  return [
    {
      key: looked,
      impact: `An error page (${routes[0]?.status ?? requests[0]?.answer.status}) at ${routes[0]?.path ?? site.base}.`,
      cause: `${place.file}:${place.line} copies ${folder.name} to ${directory}, and ${host.name} looks for ${site.base} in ${looked}.`,
      places: routes.map((route) => routePlace(route, evidence)),
      source: place,
      fix: {
        steps: [`In ${place.file}:${place.line}, copy it to ${looked}`, 'Then build the container again.'],
        edits: [{ file: place.file, line: place.line, instead: directory, write: looked }],
      },
      claims: [...routes, ...requests],
    },
  ]
}
