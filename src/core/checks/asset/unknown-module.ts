import { counted, listed } from '../../model/text.ts'
import { loadedByPages } from '../../requests/loaded-by-pages.ts'
import type { RequestPlace } from '../../requests/request.ts'
import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'

/** A script imports a module by a name that the browser can't turn into a URL. */
export const unknownModule = defineCheck({
  code: 'asset/unknown-module',
  severity: 'blocker',
  title: 'A script imports a name that leads nowhere',
  keywords: ['bare specifier', 'failed to resolve module specifier', 'import map', 'external'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const { facts, requested, survey } = evidence
  const loaded = loadedByPages(facts, requested.loads)
  const places = requested.unmapped.filter(({ file }) => loaded.has(file))
  const [first] = places
  if (!first) return []
  const names = [...new Set(places.map(({ reference }) => reference.raw))]
  const shown = listed(names.slice(0, 5).map((name) => `"${name}"`))
  const all = names.length > 5 ? `${shown} and ${names.length - 5} more` : shown
  return [
    {
      key: names.join(' '),
      impact: 'The page does not start: the browser refuses a script whose imports it can not resolve.',
      cause: `${counted(filesOf(places), 'script')} ${filesOf(places) > 1 ? 'import' : 'imports'} ${all}. No import map of a page says where ${names.length > 1 ? 'these are' : 'this is'}, and without one a browser takes only URLs.`,
      places: places.map(({ file, reference: { offset, length } }) => ({ file, offset, length })),
      fix: [
        survey.build
          ? `Let the build put ${all} into the bundle: take ${names.length > 1 ? 'them' : 'it'} out of what it leaves out (external).`
          : `Give each page an import map that says where ${all} ${names.length > 1 ? 'are' : 'is'}, before its first module script.`,
        rebuild(evidence),
      ],
    },
  ]
}

function filesOf(places: readonly RequestPlace[]): number {
  return new Set(places.map(({ file }) => file)).size
}
