import { z } from 'zod'

/**
 * The JSON report, `wardoscope-report/1`. Keys are stable; later versions of the same number only add.
 * Other modules take the types from here and leave the schema, and the schema library, unloaded.
 */

const place = z.object({
  file: z.string().describe('Path, relative to the folder or project it is in'),
  line: z.int().min(1),
  column: z.int().min(1).describe('In UTF-16 code units, from 1'),
})

const origin = z.union([
  place,
  z.object({ by: z.string().describe("What set the value: a framework's default") }),
])

function reading<T extends z.ZodType>(value: T) {
  return z.object({
    value: z.nullable(value).describe('Null when the value is computed by code that is not run'),
    from: origin,
    certainty: z.enum(['stated', 'default', 'inferred', 'computed']),
    expression: z.string().optional().describe('The code that computes the value'),
    dependsOn: z
      .string()
      .optional()
      .describe('The variable of the environment that may have set another value'),
    setAt: place
      .optional()
      .describe('Where it is set to what this value follows from; else the value holds without it'),
    inactive: z
      .object({ because: z.string(), step: z.string(), option: z.string().optional() })
      .optional()
      .describe('What keeps a written value from having an effect, and what lets it'),
  })
}

const text = z.nullable(reading(z.string()))

const sourceRoute = z.object({
  pattern: z.string(),
  place,
  kind: z.enum(['table', 'file']).describe("In the browser's own router, or a file that is a page"),
})

const namesInFile = z.object({
  file: z.string(),
  names: z.array(z.object({ name: z.string(), line: z.int() })),
})

const message = z.object({
  text: z.string(),
  file: z.nullable(z.string()),
  line: z.int(),
  column: z.int(),
})

const visit = z.object({
  route: z.string(),
  width: z.nullable(z.int()).describe('CSS pixels; null for a visit without a browser'),
  status: z.nullable(z.int()),
  requests: z.int(),
  errors: z.array(message),
  complaints: z.array(message.extend({ kind: z.enum(['error', 'warning']) })),
  failed: z.array(
    z.object({ url: z.string(), status: z.nullable(z.int()), reason: z.string(), data: z.boolean() }),
  ),
  left: z
    .array(
      z.object({
        url: z.string(),
        method: z.string(),
        outcome: z.enum(['not sent', 'answered by the stand-in', 'sent']),
      }),
    )
    .describe('Requests for other origins'),
  blank: z.boolean(),
  overflows: z.boolean().describe('Whether the page is wider than the window'),
  again: z.nullable(z.int()).describe('The status when the page was loaded again'),
  worker: z.nullable(z.string()).describe('The service worker that the page requested'),
  milliseconds: z.number(),
  picture: z.nullable(z.string()),
})

const rehearsal = z.object({
  by: z.enum(['requests', 'browser']),
  visits: z.array(visit),
  linked: z.array(z.string()).describe('Paths of the site that pages link to and that no visit opened'),
  differences: z.array(z.string()).describe('Where the served site did other than predicted'),
})

const surveySchema = z.object({
  directory: z.string(),
  projects: z.array(
    z.object({
      directory: z.string(),
      name: z.nullable(z.string()),
      framework: z.nullable(z.string()),
      server: z.nullable(z.string()).describe('The server library that makes it a program of a server'),
      buildCommand: z.nullable(z.string()),
      publishDirectory: z.nullable(z.string()),
      basePath: z.nullable(z.string()),
    }),
  ),
  choice: z.nullable(z.string()).describe('Why this project was taken, when there are several'),
  remarks: z.array(z.string()).describe('What could not be known, and what disagrees'),
  declarations: z.array(
    z.object({ kind: z.enum(['publish-directory', 'build-command']), value: z.string(), place }),
  ),
  project: text,
  framework: text,
  frameworkVersion: text,
  packageManager: text,
  installCommand: text,
  buildCommand: z.nullable(
    reading(z.string()).extend({ script: z.string().optional().describe('The text the command runs') }),
  ),
  publishDirectory: text,
  basePath: text,
  observedBase: text.describe('The base path the output itself shows'),
  addresses: z
    .array(
      z.object({
        value: z.string(),
        from: place,
        kind: z.enum(['configuration', 'homepage', 'domain file', 'repository']),
      }),
    )
    .describe('What names the address of the site; of a repository, the path hosts serve it under'),
  mode: text,
  environment: z.object({
    prefixes: z.nullable(reading(z.array(z.string()))),
    files: z.array(namesInFile),
    deploy: z.array(namesInFile).describe('Pipeline, deploy and container files that name variables'),
    reads: z.array(z.object({ name: z.string(), place, guarded: z.boolean() })),
  }),
  devProxy: z.nullable(reading(z.array(z.string()))),
  output: text.describe('static or server'),
  nodeVersion: text.describe('The version of Node that the project requires'),
  router: text,
  routerBase: text.describe('The path that the router in the browser puts before its routes'),
  routes: z.array(sourceRoute).describe('The routes that the sources give pages to'),
})

const highlight = z
  .object({ start: z.int().min(0), length: z.int().min(0) })
  .describe('The part of the excerpt that is meant, in UTF-16 code units')

const sourcePlace = place.extend({
  excerpt: z.string().optional(),
  around: z
    .object({ from: z.int().min(1), lines: z.array(z.string()) })
    .optional()
    .describe('The lines around it, and the number of the first'),
})

const findingPlace = z.object({
  file: z.string(),
  line: z.nullable(z.int().min(1)),
  column: z.nullable(z.int().min(1)),
  excerpt: z.nullable(z.string()),
  highlight: z.nullable(highlight),
  request: z.nullable(z.string()).describe('What the browser requests from here'),
  status: z.nullable(z.int()).describe('What the host answers'),
  source: z.nullable(sourcePlace),
})

const edit = z.object({
  file: z.string().describe('From the directory of the project'),
  line: z.nullable(z.int()),
  column: z.optional(z.int()).describe('Where on the line the value begins, or the object that gets it'),
  write: z.string().describe('The setting, or the line, as a person writes it'),
  after: z.optional(z.string()).describe('The words of a command that an option is written behind'),
  instead: z.optional(z.string()).describe('The text of that line in whose place it is written'),
  beside: z
    .optional(z.literal(true))
    .describe('It is an entry of its own, written before that of the line in the same form'),
  into: z
    .optional(
      z.object({
        argument: z.optional(z.int()),
        member: z.optional(z.string()),
        attribute: z.optional(z.string()),
      }),
    )
    .describe(
      'The argument, with the member of its object, or the attribute that gets it: of what begins at the place',
    ),
  needs: z
    .optional(z.string())
    .describe('The variable whose value a person must give before a program can make the edit'),
  whole: z.optional(z.string()).describe('The whole file, where there is none'),
  moveTo: z
    .optional(z.string())
    .describe('Where the file is moved as it is, from the directory of the project: nothing is written then'),
  range: z
    .optional(z.object({ start: z.int(), end: z.int() }))
    .describe('What a program replaces: offsets in UTF-16 units of the text'),
  expects: z.optional(z.string()).describe('The text that must stand there'),
  text: z.optional(z.string()).describe('The text that is to stand there'),
  lines: z
    .optional(z.object({ before: z.string(), after: z.string() }))
    .describe('The lines that it touches, for a person'),
})

const fix = z.object({
  steps: z.array(z.string()).describe('What to do, in order, one sentence each'),
  edits: z.array(edit).describe('Texts to write, and where'),
  variables: z
    .array(z.string())
    .optional()
    .describe('Variables that are to be set where the build runs, as no file of the project sets any'),
  texts: z
    .array(z.object({ title: z.string(), text: z.string() }))
    .optional()
    .describe('Texts to paste, each with where it goes'),
})

const finding = z.object({
  code: z.string().regex(/^[a-z]+\/[a-z-]+$/),
  severity: z.enum(['blocker', 'caution', 'note']),
  site: z.string().describe('The address at which it was found, the first of them'),
  sites: z.array(z.string()).describe('Every address at which the same is found'),
  title: z.string(),
  impact: z.string().describe('What a visitor sees'),
  cause: z.string(),
  count: z.int().min(1).describe('How many places this cause shows in'),
  places: z.array(findingPlace),
  source: z.nullable(sourcePlace).describe('Where in the project the cause is'),
  fix,
  fingerprint: z.string(),
  seen: z.array(z.enum(['check', 'rehearsal'])).describe('How it was found: by looking, by running, or both'),
  touched: z
    .optional(z.enum(['line', 'file']))
    .describe('Whether a change in review touches the line it comes from, or a file'),
  waived: z.boolean(),
  waiver: z
    .nullable(z.object({ reason: z.string(), until: z.nullable(z.string()) }))
    .describe('What accepts it'),
})

const route = z.object({
  path: z.string(),
  from: origin,
  status: z.int(),
  entryFile: z.nullable(z.string()),
  answeredBy: z.string(),
  by: z.string().describe('The kind of rule that answered'),
  pattern: z.nullable(z.string()).describe("The route's own form, when it has parameters"),
  values: z
    .nullable(z.enum(['a link', 'the configuration', 'made up']))
    .describe('Where the values of its parameters come from'),
  redirects: z.array(z.string()).describe('Where a visitor is sent on the way'),
  loops: z.boolean().describe('Whether that goes on for ever'),
})

const weights = {
  files: z.int(),
  bytes: z.int().describe('As the files are in the folder'),
  gzip: z.nullable(z.int()).describe('Bytes as gzip makes them, level 6; null when nobody compressed them'),
  brotli: z.nullable(z.int()).describe('Bytes as Brotli makes them, quality 5'),
}

const load = z.object({
  request: z.string(),
  status: z.int(),
  fails: z.boolean().describe('Whether something else comes than the file that was requested'),
  bytes: z.nullable(z.int()).describe('As the file is in the folder; null where none comes'),
  at: z.nullable(place).describe('What asks for it'),
})

const delivery = z.object({
  files: z.int(),
  bytes: z.int(),
  compressedBytes: z
    .nullable(z.int())
    .describe('All that first visits download, each file once, as gzip makes it'),
  routes: z.int().describe('How many entry files routes begin with'),
  firstVisit: z
    .array(
      z.object({
        route: z.string().describe('The route that stands for all with the same entry file'),
        entryFile: z.string(),
        ...weights,
        kinds: z.array(
          z.object({ kind: z.enum(['page', 'script', 'style', 'font', 'image', 'other']), ...weights }),
        ),
        loads: z
          .optional(z.array(load))
          .describe('What it requests, failing requests first; of the 60 heaviest, and at most 80 of each'),
      }),
    )
    .describe('What opening a route downloads before anybody does anything, the heaviest first'),
  largest: z.array(z.object({ file: z.string(), bytes: z.int() })),
})

const difference = z.object({ won: z.array(z.string()), lost: z.array(z.string()) })
const changedFile = z.object({
  path: z.string(),
  was: z.string().describe('Its path in the earlier release'),
  before: z.int().describe('Bytes'),
  after: z.int(),
})
const listedFile = z.object({ path: z.string(), bytes: z.int() })

const comparison = z.object({
  same: z.boolean().describe('Whether every file is as it was'),
  moved: z
    .nullable(z.object({ from: z.string(), to: z.string() }))
    .describe('The base paths, when the site moves to another'),
  kept: z.int().describe('Files that are as they were'),
  counts: z.object({ changed: z.int(), renamed: z.int(), added: z.int(), gone: z.int() }),
  bytes: z.object({ before: z.int(), after: z.int() }),
  changed: z
    .array(changedFile)
    .describe('Other content under the same name; this list and the next at most 5,000'),
  renamed: z.array(changedFile).describe('The same name but for its hash'),
  added: z.array(listedFile),
  gone: z.array(listedFile),
  purge: z.array(z.string()).describe('Paths that caches hold and that answer otherwise now, all of them'),
  purgeBelow: z
    .nullable(z.string())
    .describe('The path below which whatever no file answers gets another document than before'),
  needNone: z.int().describe('New files whose name has a hash: no cache holds them'),
  rewritten: z.array(z.string()).describe('Files whose name has a hash and whose content changed under it'),
  chunksGone: z
    .array(z.string())
    .describe('Code that open pages of the earlier release may request, and that is gone'),
  routes: difference.describe('Below the base path'),
  endpoints: difference.describe('Origins that are called'),
  variables: difference.describe('Names of variables that the build holds'),
  firstVisits: z
    .array(z.object({ route: z.string(), before: z.int(), after: z.int() }))
    .describe('What opening a route downloads, where that changed; the largest change first'),
})

const liveFile = z.object({
  path: z.string(),
  url: z.string(),
  status: z.nullable(z.int()),
  detail: z.string().describe('One sentence: what came, with the headers that matter'),
})

const live = z.object({
  files: z.int().describe('Files that were asked for'),
  asBuilt: z.int().describe('Files that came as they were built'),
  differing: z.array(
    liveFile.extend({
      state: z.enum([
        'missing',
        'page instead',
        'older',
        'other content',
        'changed on the way',
        'refused',
        'no answer',
      ]),
    }),
  ),
  wrongType: z.array(liveFile),
  notCompressed: z.array(liveFile),
  pagesKept: z.array(liveFile),
  hashedNotKept: z.array(liveFile),
  routes: z.array(liveFile.extend({ expected: z.int() })),
  plainHttp: z.nullable(liveFile),
  policy: z.nullable(liveFile),
  milliseconds: z.number(),
})

/** The schema of the whole report. */
export const reportSchema = z.object({
  schema: z.literal('wardoscope-report/1'),
  verdict: z.enum(['clear', 'held']),
  sites: z.array(
    z.object({
      address: z.string(),
      base: z.string(),
      given: z.boolean(),
      verdict: z.enum(['clear', 'held']),
      blockers: z.int().describe('Findings at this address that no waiver covers'),
      cautions: z.int(),
      notes: z.int(),
    }),
  ),
  host: z.object({ name: z.string(), given: z.boolean() }),
  survey: surveySchema,
  folder: z.object({ path: z.string(), files: z.int(), bytes: z.int() }),
  repository: z
    .optional(
      z.object({
        project: z.string().describe("The project's directory; empty for the root"),
        folder: z.nullable(z.string()).describe('The build folder; null where it is elsewhere'),
      }),
    )
    .describe('Where these are from the root of their repository, when they are in one'),
  projects: z
    .optional(
      z.array(
        z.object({
          directory: z.string().describe('From the root of the repository'),
          name: z.nullable(z.string()),
          buildCommand: z.nullable(z.string()),
          folder: z.nullable(z.string()),
          address: z.nullable(z.string()),
          verdict: z.nullable(z.enum(['clear', 'held'])),
          blockers: z.int(),
          cautions: z.int(),
          problem: z.nullable(z.string()).describe('Why it could not be looked at'),
        }),
      ),
    )
    .describe(
      'Every front end of a repository, when all of them were checked; all places are then from its root',
    ),
  findings: z.array(finding),
  change: z
    .optional(
      z.object({
        since: z.string().describe('The revision, as it was named'),
        touched: z.int().describe('Findings that come from lines or files it changes'),
        leftOut: z.int().describe('Other findings, which are left out here and count all the same'),
      }),
    )
    .describe('The change in review, when findings are told apart by it'),
  waivers: z
    .array(
      z.object({
        code: z.string(),
        where: z.nullable(z.string()),
        reason: z.string(),
        until: z.nullable(z.string()),
        state: z.enum(['used', 'expired', 'unused']),
      }),
    )
    .describe('The waivers of the configuration, and what became of each'),
  routes: z.array(route.extend({ site: z.string().describe('The address it belongs to') })),
  assets: z.object({
    references: z.int(),
    requests: z.int(),
    answered: z.int(),
    missing: z.int(),
    list: z
      .array(
        z.object({
          path: z.string().describe('What the browser requests'),
          status: z.int(),
          fails: z.boolean().describe('Whether something else comes than the file that was requested'),
          answeredBy: z.string(),
          file: z.nullable(z.string()),
          bytes: z.nullable(z.int()),
          places: z.int().describe('How many places request it'),
        }),
      )
      .describe('The file requests, those that fail first; at most 2,000'),
  }),
  environment: z.array(
    z.object({
      name: z.string(),
      state: z.enum([
        'injected',
        'absent',
        'guarded',
        'unreplaced',
        'from development',
        'outdated',
        'unused',
        'private',
        'placeholder',
        'unknown',
      ]),
      definedIn: z.array(place),
      inProcess: z.boolean().describe('Whether the process that made this report sets it'),
      readAt: z.array(place),
      injectedIn: z.array(place),
    }),
  ),
  endpoints: z.array(
    z.object({
      url: z.string(),
      kind: z.string().describe('Where the address leads, as a stranger sees it'),
      flow: z.nullable(z.string()).describe('What it is passed to, when that can be seen'),
      certainty: z.enum(['called', 'likely', 'harmless']),
      judgement: z.string().describe('Why it counts as called, or was let pass'),
      variable: z.nullable(z.string()).describe('The variable that carried it'),
      places: z.array(place),
    }),
  ),
  reach: z
    .array(
      z.object({
        url: z.string(),
        requested: z.string().describe('The method, or handshake; empty when nothing was sent'),
        outcome: z.enum(['allows', 'refuses', 'no answer', 'error', 'not sent']),
        status: z.nullable(z.int()),
        reason: z.string(),
        milliseconds: z.number(),
      }),
    )
    .describe('What the endpoints answered when requests were sent; empty when none was'),
  live: z
    .nullable(live)
    .optional()
    .describe("What the site's address serves, held against the folder; null when it was not asked"),
  rehearsal: z.nullable(rehearsal).describe('What was seen when the build was served and visited'),
  delivery,
  comparison: z
    .nullable(comparison)
    .describe('What this release changes, when it was compared with an earlier one'),
  freshness: z
    .nullable(z.object({ known: z.boolean(), reason: z.string() }))
    .describe('Whether it is known that the build holds what the sources say now, and why'),
  unread: z.array(z.object({ file: z.string(), reason: z.string() })),
  timings: z.record(z.string(), z.number()).describe('Milliseconds each stage took'),
})

export type Report = z.infer<typeof reportSchema>
export type Finding = z.infer<typeof finding>
export type FindingPlace = z.infer<typeof findingPlace>
export type SourcePlace = NonNullable<Finding['source']>
export type Fix = z.infer<typeof fix>
export type Edit = z.infer<typeof edit>
export type Severity = Finding['severity']
export type Verdict = Report['verdict']
export type RouteAnswer = z.infer<typeof route>
export type ProjectRow = NonNullable<Report['projects']>[number]
export type SurveyReport = z.infer<typeof surveySchema>
export type EnvironmentState = Report['environment'][number]
export type Comparison = NonNullable<Report['comparison']>
export type Delivery = Report['delivery']
export type Load = z.infer<typeof load>
export type EndpointReport = Report['endpoints'][number]
