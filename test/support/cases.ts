import { expect, test } from 'vitest'
import type { Host } from '../../src/core/host/host.ts'
import { presetNamed } from '../../src/core/host/presets.ts'
import { MemoryFolder } from '../../src/core/model/memory-folder.ts'
import type { Finding, Report } from '../../src/core/model/report.ts'
import { parseSite } from '../../src/core/model/site.ts'
import { type CheckOptions } from '../../src/core/pipeline/options.ts'
import { check } from '../../src/core/pipeline/check.ts'

/** A folder, how it is served, and what must be found: `code severity ×places`, with texts that must be in the finding. */
export interface Case {
  /** A file that is undefined is not there. */
  readonly files: Readonly<Record<string, string | Uint8Array | undefined>>
  readonly host?: string
  readonly rules?: Partial<Host>
  readonly routes?: readonly string[]
  readonly site?: string
  /** The environment of the process. */
  readonly environment?: Readonly<Record<string, string>>
  readonly finds: readonly string[]
  readonly says?: readonly string[]
}

const site = 'https://skerryline.example/b/'

/** Runs a table of sound and faulty folders through the whole check. */
export function checkCases(cases: Readonly<Record<string, Case>>): void {
  test.each(Object.entries(cases))('%s', async (_, one) => {
    const { findings } = await checkCase(one)
    expect(codesOf(findings)).toEqual(one.finds)
    const reported = JSON.stringify(findings)
    for (const text of one.says ?? []) expect(reported).toContain(text)
  })
}

export async function checkCase({
  files,
  host = 'fallback',
  rules = {},
  routes = [],
  site: at = site,
  environment = {},
}: Case): Promise<Report> {
  const preset = presetNamed(host)
  if (!preset) throw new Error(`no preset ${host}`)
  const options: CheckOptions = { site: parseSite(at), host: { ...preset, ...rules }, routes, environment }
  const there = Object.entries(files).filter(([, content]) => content !== undefined)
  return check(new MemoryFolder(Object.fromEntries(there) as Record<string, string | Uint8Array>), options)
}

export function codesOf(findings: readonly Finding[]): string[] {
  return findings.map(({ code, severity, count }) => `${code} ${severity} ×${count}`)
}

/** A document with this in its head. */
export function page(head: string): string {
  return `<!doctype html><head>${head}</head>`
}
