import * as z from 'zod'
import { parseShaped } from '../model/shaped.ts'
import type { Host } from './host.ts'
import { presetNamed, presets } from './presets.ts'

const documents = z
  .strictObject({
    documents: z.array(z.string()).min(1).describe('The first of these that is in the folder is sent'),
    status: z.int().min(200).max(599),
  })
  .nullable()

const rule = z.strictObject({
  from: z.string().startsWith('/').describe('A path; ":name" is one step, "*" at the end all that follows'),
  to: z.string().nullable().default(null).describe('A path or URL; ":name" and "*" are filled in'),
  status: z.int().min(200).max(599).default(200),
  forced: z.boolean().default(false).describe('Whether it holds for paths that are files too'),
})

/** The shape of a host file: what it leaves out is as the preset it is based on has it. */
export const hostFileSchema = z.strictObject({
  name: z.string().optional(),
  about: z.string().optional(),
  basedOn: z.enum(presets.map(({ name }) => name) as [string, ...string[]]).default('files'),
  directoryIndex: z.string().optional(),
  extensionless: z.boolean().optional(),
  trailingSlash: z.enum(['keep', 'add', 'drop']).optional(),
  rules: z.array(rule).optional(),
  fallback: documents.optional(),
  notFound: documents.optional(),
  withheld: z.array(z.string().min(1)).optional(),
  letterCase: z.enum(['kept', 'ignored']).optional(),
  contentTypes: z.record(z.string(), z.string()).optional(),
  limits: z
    .strictObject({ files: z.int().nullable().default(null), fileBytes: z.int().nullable().default(null) })
    .optional(),
})

/**
 * Reads a host file.
 * @param file its name, for messages
 * @throws {UsageError} when it is not JSON, or not of this shape; the message names the key, and the nearest one that is known
 */
export function parseHostFile(file: string, text: string): Host {
  const keys = [...Object.keys(hostFileSchema.shape), ...Object.keys(rule.shape)]
  const { basedOn, rules, ...given } = parseShaped(`The host file ${file}`, hostFileSchema, text, keys)
  const base = presetNamed(basedOn) ?? presets[0]
  const said = Object.fromEntries(Object.entries(given).filter(([, member]) => member !== undefined))
  return {
    ...(base as Host),
    name: file,
    about: `Described in ${file}`,
    ...said,
    rules: (rules ?? []).map((each) => ({
      ...each,
      to: withTaken(each.to),
      conditions: [],
      place: { file, line: 1, column: 1 },
    })),
  }
}

/** In files of our own a star stands for what the star took. */
function withTaken(to: string | null): string | null {
  return to?.replace(/\*/g, ':splat') ?? null
}
