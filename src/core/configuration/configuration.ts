import * as z from 'zod'
import { checkShaped, parseShaped } from '../model/shaped.ts'

/** The shape of a configuration file. What the command line says wins over it. */
export const configurationSchema = z.strictObject({
  $schema: z.string().optional(),
  site: z
    .string()
    .optional()
    .describe('Where the folder will be served, as in https://skerryline.example/crossings/'),
  sites: z
    .array(z.string())
    .min(1)
    .optional()
    .describe('Several addresses that the one folder will be served at, in place of site'),
  folder: z.string().optional().describe('The build folder, when it is not the one the project names'),
  host: z
    .string()
    .optional()
    .describe('A preset, or a file that describes the host, from the directory of this file'),
  routes: z.array(z.string()).optional().describe('Routes a visitor can open directly'),
  waivers: z
    .array(
      z.strictObject({
        code: z.string().describe('A finding code'),
        where: z
          .string()
          .optional()
          .describe('A pattern for the files it is meant for, as in assets/legacy-*.js'),
        reason: z.string().trim().min(1, 'a waiver needs a reason').describe('Why it is accepted'),
        until: z.iso.date().optional().describe('The last day on which it holds, as in 2027-01-31'),
      }),
    )
    .optional()
    .describe('Findings that are accepted'),
  holdOn: z
    .union([
      z.enum(['blocker', 'caution', 'unused-waivers']),
      z.array(z.enum(['blocker', 'caution', 'unused-waivers'])),
    ])
    .optional()
    .describe('What holds the build, beside blockers'),
  limits: z
    .strictObject({
      files: z.int().min(1).describe('Files of the folder').optional(),
      file: z.int().min(1).describe('Bytes of one file').optional(),
      firstVisit: z
        .int()
        .min(1)
        .describe('Bytes that opening a route downloads, as gzip sends them')
        .optional(),
      total: z.int().min(1).describe('Bytes of the whole folder').optional(),
    })
    .optional()
    .describe('What the folder may weigh'),
  samples: z.record(z.string(), z.string()).optional().describe('Values for parameters of routes, by name'),
})

/** What a project says of how it is checked. */
export type Configuration = z.infer<typeof configurationSchema>

/**
 * Reads a configuration file.
 * @param file its name, for messages
 * @throws {UsageError} when it is not JSON or has another shape; the message names the key, and the nearest one that is known
 */
export function parseConfiguration(file: string, text: string): Configuration {
  return parseShaped(
    `The configuration ${file}`,
    configurationSchema,
    text,
    Object.keys(configurationSchema.shape),
  )
}

/**
 * The same for what a module exports.
 * @throws {UsageError} when it has another shape
 */
export function checkConfiguration(file: string, value: unknown): Configuration {
  return checkShaped(
    `The configuration ${file}`,
    configurationSchema,
    value,
    Object.keys(configurationSchema.shape),
  )
}
