import type { CausePlace } from '../checks/cause.ts'
import type { Endpoint } from '../endpoints/endpoint.ts'
import { shownUrl } from '../endpoints/endpoints.ts'
import type { FileFacts } from '../model/facts.ts'
import type { EndpointReport, EnvironmentState } from '../model/report.ts'
import type { Locator } from './locator.ts'

/** Places of the build shown of one variable; more tell nobody more. */
const mostInjected = 3

/** Adds to each variable where the build holds it. */
export async function withInjectedPlaces(
  environment: readonly EnvironmentState[],
  facts: readonly FileFacts[],
  locator: Locator,
): Promise<EnvironmentState[]> {
  const seen = new Map<string, CausePlace[]>()
  for (const { path, occurrences } of facts) {
    for (const { name, offset, length } of occurrences) {
      const places = seen.get(name) ?? []
      if (places.length < mostInjected) seen.set(name, [...places, { file: path, offset, length }])
    }
  }
  const found: EnvironmentState[] = []
  for (const variable of environment) {
    const places = await locator.locate(seen.get(variable.name) ?? [])
    const injectedIn = places.flatMap(({ file, line, column }) =>
      line === null || column === null ? [] : [{ file, line, column }],
    )
    found.push({ ...variable, injectedIn })
  }
  return found
}

/** Places of the build shown of one endpoint. */
const mostNamed = 5

/** The endpoints as the report holds them: offsets as places. */
export async function endpointReports(
  endpoints: readonly Endpoint[],
  locator: Locator,
): Promise<EndpointReport[]> {
  const found: EndpointReport[] = []
  for (const { url, kind, flow, certainty, judgement, variable, places } of endpoints) {
    const located = await locator.locate(places.slice(0, mostNamed))
    found.push({
      url: shownUrl(url),
      kind,
      flow,
      certainty,
      judgement,
      variable,
      places: located.flatMap(({ file, line, column }) =>
        line === null || column === null ? [] : [{ file, line, column }],
      ),
    })
  }
  return found
}
