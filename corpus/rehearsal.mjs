// Serves every build as its host would and visits every route: by requests, each answer held against the prediction; with
// --browser the builds of one variant of each project in a real browser too.
import { startBrowser } from '../dist/rehearse/browser.js'
import { visitByBrowser } from '../dist/rehearse/browser-visits.js'
import { startHost } from '../dist/rehearse/host-server.js'
import { visitByHttp } from '../dist/rehearse/http-visits.js'

/** Routes that are opened; some folders have hundreds. */
const mostRoutes = 40

let browser = null

/** What `check` is passed as its rehearsal. */
export function rehearsing({ inBrowser }) {
  return async ({ build, ...stage }) => {
    const played = { ...stage, folder: build }
    const routes = stage.routes.slice(0, mostRoutes)
    if (!build) return { by: 'requests', visits: [], linked: [], differences: [] }
    const server = await startHost(played, { port: 0, listen: '127.0.0.1' })
    const byHttp = await visitByHttp({ stage: played, origin: server.origin, routes }).finally(() =>
      server.close(),
    )
    if (!inBrowser) return byHttp
    browser ??= await startBrowser(null)
    const { pages, ...seen } = await visitByBrowser({
      stage: played,
      browser,
      routes: routes.slice(0, 6),
      widths: [1280],
      online: false,
      answers: null,
      shots: null,
      pageTime: 15_000,
      allTime: 120_000,
      signal: new AbortController().signal,
    })
    return { ...seen, differences: [...byHttp.differences, ...seen.differences] }
  }
}

export async function endBrowser() {
  await browser?.close()
}
