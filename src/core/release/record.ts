import * as z from 'zod'
import { UsageError } from '../model/errors.ts'
import type { Release } from './release.ts'

const text = z.string()
const bytes = z.int().min(0)

/** The shape of a release record, `wardoscope-record/1`. Keys are stable; later versions of the same number only add. */
export const recordSchema = z.object({
  schema: z.literal('wardoscope-record/1'),
  program: text.describe('The version of the program that wrote it'),
  verdict: z.enum(['clear', 'held']),
  sites: z.array(text).describe('The addresses it was judged at'),
  base: text.describe('The base path of the first of them'),
  observed: z.nullable(text).describe('The base path that the output itself shows'),
  files: z
    .array(z.tuple([text, bytes, text, z.enum(['', 'later'])]))
    .describe(
      'Path, bytes, the first 128 bits of the SHA-256 in base64url, and `later` when a script requests it after the page has loaded',
    ),
  routes: z
    .array(
      z.object({
        path: text,
        entryFile: z.nullable(text),
        status: z.int(),
        download: z.nullable(bytes).describe('Bytes of a first visit, compressed where that was known'),
      }),
    )
    .describe('What a visitor can open directly'),
  variables: z.array(text).describe('Names of the variables that the build holds; never a value'),
  endpoints: z.array(text).describe('Origins that the build calls'),
})

/** A release with how it was judged, as it is kept. */
export type ReleaseRecord = z.infer<typeof recordSchema>

/** A release as a record keeps it. */
export function recordOf(
  release: Release,
  judged: Pick<ReleaseRecord, 'verdict' | 'program'> & { readonly sites: readonly string[] },
): ReleaseRecord {
  const { program, verdict, sites } = judged
  return {
    schema: 'wardoscope-record/1',
    program,
    verdict,
    sites: [...sites],
    base: release.base,
    observed: release.observed,
    files: release.files.map(({ path, bytes: size, digest, later }) => [
      path,
      size,
      digest,
      later ? 'later' : '',
    ]),
    routes: release.routes.map((route) => ({ ...route })),
    variables: [...release.variables],
    endpoints: [...release.endpoints],
  }
}

/** One line a file, so that two records can be distinguished by any tool that compares lines. */
export function writeRecord({ files, routes, ...rest }: ReleaseRecord): string {
  const head = JSON.stringify(rest, null, 1).slice(0, -2)
  const lines = (list: readonly unknown[]): string =>
    list.length === 0 ? '[]' : `[\n${list.map((each) => `  ${JSON.stringify(each)}`).join(',\n')}\n ]`
  return `${head},\n "files": ${lines(files)},\n "routes": ${lines(routes)}\n}\n`
}

/**
 * Reads a record.
 * @param file its name, for messages
 * @throws {UsageError} when it is not JSON, or no record of this form
 */
export function readRecord(file: string, content: string): Release {
  const parsed = recordSchema.safeParse(jsonOf(file, content))
  if (!parsed.success) {
    const [issue] = parsed.error.issues
    const where = issue && issue.path.length > 0 ? ` at ${issue.path.join('.')}` : ''
    throw new UsageError(
      `${file} is no release record of the form wardoscope-record/1${where}. A check can write one.`,
      { setting: 'record' },
    )
  }
  const { base, observed, files, routes, variables, endpoints } = parsed.data
  return {
    base,
    observed,
    files: files.map(([path, size, digest, use]) => ({ path, bytes: size, digest, later: use === 'later' })),
    routes,
    variables,
    endpoints,
  }
}

function jsonOf(file: string, content: string): unknown {
  try {
    return JSON.parse(content)
  } catch {
    throw new UsageError(
      `The release record ${file} is not JSON. Was it cut off? A check can write it anew.`,
      { setting: 'record' },
    )
  }
}
