import { expect, test } from 'vitest'
import type { Check } from '../../src/core/checks/check.ts'
import { checks } from '../../src/core/checks/index.ts'
import { runChecks } from '../../src/core/checks/run.ts'
import type { Host } from '../../src/core/host/host.ts'
import { presetNamed } from '../../src/core/host/presets.ts'
import type { Folder } from '../../src/core/model/folder.ts'
import { MemoryFolder } from '../../src/core/model/memory-folder.ts'
import type { Finding, Report } from '../../src/core/model/report.ts'
import { parseSite } from '../../src/core/model/site.ts'
import { stopwatch } from '../../src/core/model/stopwatch.ts'
import { observe } from '../../src/core/pipeline/check.ts'
import { openForCheck } from '../../src/core/pipeline/open-for-check.ts'
import type { CheckOptions } from '../../src/core/pipeline/options.ts'
import { readBuild } from '../../src/core/pipeline/read-build.ts'
import { reportOf } from '../../src/core/pipeline/report.ts'

/** A folder, how it is served, and what must be found: `code severity ×places`, with texts that must be in the finding. */
export interface Case {
  /** A file that is undefined is not there. */
  readonly files: Readonly<Record<string, string | Uint8Array | undefined>>
  /** Null where nobody names one. */
  readonly host?: string | null
  readonly rules?: Partial<Host>
  readonly routes?: readonly string[]
  /** Null where nobody names one. */
  readonly site?: string | null
  /** The environment of the process. */
  readonly environment?: Readonly<Record<string, string>>
  readonly finds: readonly string[]
  readonly says?: readonly string[]
}

const site = 'https://skerryline.example/b/'

/**
 * Runs a table of sound and faulty folders: what these checks find in each, when they run by themselves, with those that
 * explain better what they would report.
 */
export function checkCases(codes: string | readonly string[], cases: Readonly<Record<string, Case>>): void {
  const alone = checksFor([codes].flat())
  test.each(Object.entries(cases))('%s', async (_, one) => {
    const { findings } = await checkCase(one, alone)
    expect(codesOf(findings)).toEqual(one.finds)
    const reported = JSON.stringify(findings)
    for (const text of one.says ?? []) expect(reported).toContain(text)
  })
}

/** The checks of these codes, or of an area that ends with a slash, and those they run after. */
function checksFor(codes: readonly string[]): Check[] {
  const wanted = new Set(
    codes.flatMap((code) =>
      code.endsWith('/') ? checks.map((each) => each.code).filter((each) => each.startsWith(code)) : [code],
    ),
  )
  for (const code of wanted) {
    if (code === '*') continue
    const found = checks.find((each) => each.code === code)
    if (!found) throw new Error(`no check ${code}`)
    for (const earlier of found.after) wanted.add(earlier)
  }
  return checks.filter(({ code }) => wanted.has(code))
}

export async function checkCase(
  { files, host = 'fallback', rules = {}, routes = [], site: at = site, environment = {} }: Case,
  alone: readonly Check[] = checks,
): Promise<Report> {
  const preset = host === null ? null : presetNamed(host)
  if (host !== null && !preset) throw new Error(`no preset ${host}`)
  const options: CheckOptions = {
    ...(at === null ? {} : { site: parseSite(at) }),
    host: preset && { ...preset, ...rules },
    routes,
    environment,
  }
  const there = Object.entries(files).filter(([, content]) => content !== undefined)
  const folder = new MemoryFolder(Object.fromEntries(there) as Record<string, string | Uint8Array>)
  return run(alone, folder, options)
}

/** What the checks of these codes or areas find in a folder, with those they run after. */
export async function checkAlone(
  codes: readonly string[],
  folder: Folder,
  options: CheckOptions = {},
): Promise<Report> {
  return run(checksFor(codes), folder, options)
}

async function run(alone: readonly Check[], folder: Folder, options: CheckOptions): Promise<Report> {
  const clock = stopwatch()
  const { target } = await openForCheck(folder, options)
  const { known, mask } = await observe(target, await readBuild(target, options), options, clock)
  return reportOf(known, await runChecks(alone, known), { target, mask, clock, options })
}

export function codesOf(findings: readonly Finding[]): string[] {
  return findings.map(({ code, severity, count }) => `${code} ${severity} ×${count}`)
}

/** A document with this in its head. */
export function page(head: string): string {
  return `<!doctype html><head>${head}</head>`
}
