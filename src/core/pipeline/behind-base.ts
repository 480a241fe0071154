import type { Folder } from '../model/folder.ts'
import type { Finding, Report } from '../model/report.ts'
import { parseSite } from '../model/site.ts'
import { check } from './check.ts'
import type { CheckOptions } from './options.ts'

/**
 * What is found of a build at the base path that it was made for. Where it is served below another one, most of it can't be seen:
 * nothing of it is new when that is put right.
 */
export async function behindBase(
  folder: Folder,
  options: CheckOptions,
  { findings, survey }: Report,
): Promise<readonly Finding[]> {
  const base = survey.basePath?.value ?? ''
  const here = options.sites?.[0] ?? options.site
  if (!here || !base.startsWith('/') || !findings.some(({ code }) => code === 'base/wrong-path')) return []
  const { sites: _, ...others } = options
  const site = { ...parseSite(`${here.origin}${base}`), knownAs: here.address }
  const there = await check(folder, { ...others, site })
  return there.findings
}
