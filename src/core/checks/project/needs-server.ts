import { describeOrigin } from '../../model/reading.ts'
import { type Cause, type Check, type Evidence, rebuild } from '../check.ts'

/** The build makes a program, not a folder of files. */
export const needsServer: Check = {
  code: 'project/needs-server',
  severity: 'blocker',
  title: 'This build is a program that must run on a server',
  keywords: ['SSR', 'server-side rendering', 'adapter', 'static export'],
  meaning:
    'The framework was built for a server: pages are made when they are requested, and the folder holds the program and ' +
    'some of its files, but no entry page. A host that serves files has nothing to answer with.',
  example:
    'next build without output: "export" writes .next, which holds scripts and a server, and no index.html.',
  fixes: {
    any: 'Switch the framework to static output (an export, a static adapter, prerendering), or take a host that runs it.',
    next: "Write output: 'export' in the Next configuration; next build then writes out/.",
    nuxt: 'Build with nuxt generate; it writes .output/public.',
    sveltekit:
      'Use @sveltejs/adapter-static with prerender = true in the root layout, or with a fallback page.',
    astro: "Write output: 'static' in the Astro configuration.",
    'react-router': 'Write ssr: false in react-router.config.ts.',
    'tanstack-start': 'Give tanstackStart() prerender or spa, enabled, in the Vite configuration.',
    solidstart: "Write server: { preset: 'static', prerender: { crawlLinks: true } } in app.config.ts.",
  },
  after: [],
  run,
}

function run(evidence: Evidence): Cause[] {
  const { survey, facts, folder, failing, unanswered } = evidence
  const { output, definition } = survey
  if (!folder.present || facts.length === 0 || output?.value !== 'server' || !definition) return []
  if (facts.some(({ path }) => path === evidence.host.directoryIndex)) return []
  const said =
    'file' in output.from
      ? `${describeOrigin(output.from)} requests it`
      : `${definition.title} builds for a server unless it is configured otherwise`
  return [
    {
      key: 'server',
      impact: 'An error page at every address: a host of files has no page to send.',
      cause: `${folder.name} is a server build without an entry page; ${said}.`,
      places: [{ file: folder.path, offset: null, length: 0 }],
      source: 'file' in output.from ? output.from : (survey.config?.insertAt ?? null),
      fix: {
        steps: [definition.fixes.makeStatic ?? 'Switch the framework to static output.', rebuild(evidence)],
      },
      claims: [...failing, ...unanswered],
    },
  ]
}
