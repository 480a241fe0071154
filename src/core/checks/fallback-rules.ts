import { blockFor } from '../host/nginx/host.ts'
import type { NginxHost } from '../host/nginx/read.ts'
import { presetNamed } from '../host/presets.ts'
import { apacheRules } from '../host/servers/apache.ts'
import { nginxRules } from '../host/servers/nginx.ts'
import type { Site } from '../model/site.ts'
import { decode } from '../model/text.ts'
import { type CauseFix, type Evidence, rebuild } from './check.ts'
import { pagesForRoutes } from './route-pages.ts'
import { lineIn, lineInstead } from './server-rules.ts'

/** How a host is reported to answer unknown paths with the application, in the words of the servers people run. */
export async function fallbackRules(evidence: Evidence): Promise<CauseFix> {
  const { site, requested } = evidence
  const document =
    presetNamed('fallback')?.fallback?.documents.find((file) => requested.index.has(file)) ?? 'index.html'
  const { server } = evidence.host
  const own = server?.kind === 'nginx' && ownRules(server, evidence, document)
  if (server?.kind === 'httpd')
    return (await inSource(evidence, document)) ?? ofHttpd(server.file, evidence, document)
  if (own) return own
  const further = await inRuleFile(evidence, document)
  if (further) return further
  const pages = await pagesForRoutes(evidence, document)
  const rule = `Let the host answer unknown paths below ${site.base} with ${site.base}${document} and status 200. If it does so already, check with the host fallback.`
  return {
    steps: pages
      ? [rule, `Where it can't: ${lowered(pages.steps[0] ?? '')}`, ...pages.steps.slice(1)]
      : [
          rule,
          `Where it can't: copy ${document} to 404.html in the published folder. The pages then open, but with status 404, so search engines and previews leave them out.`,
        ],
    ...(pages && { edits: pages.edits }),
    texts: [
      ...(evidence.ruleFiles.declared.some(({ kind }) => kind === 'text')
        ? [{ title: 'a rule file of one rule a line', text: `${ruleLine(site, document)}\n` }]
        : []),
      ...serverTexts(site, (file) => requested.index.has(file)),
    ],
  }
}

/** A fallback in the words of the servers people run, whichever of them a site has. */
export function serverTexts(
  site: Site,
  has: (file: string) => boolean,
): { readonly title: string; readonly text: string }[] {
  const fallback = presetNamed('fallback')
  const root = '/srv/site'
  const texts = [
    ['nginx, in the server block', fallback && nginxRules(fallback, site, root, has)],
    ['Apache httpd, in the virtual host', fallback && apacheRules(fallback, site, root, has)],
  ] as const
  return texts.flatMap(([where, text]) =>
    text ? [{ title: `${where}; the folder is at ${root}`, text }] : [],
  )
}

/** The same as the last line of the rule file that the project has. */
async function inRuleFile(evidence: Evidence, document: string): Promise<CauseFix | null> {
  const { site, ruleFiles, projectText } = evidence
  const [only, ...others] = ruleFiles.declared.filter(({ kind }) => kind === 'text')
  const lines = only && others.length === 0 ? ((await projectText(only.file))?.split('\n') ?? []) : []
  const at = lines.findLastIndex((line) => line.trim() !== '')
  const last = lines[at]?.trim()
  if (!only || last === undefined) return null
  const rule = ruleLine(site, document)
  return {
    steps: [`In ${only.file}, behind line ${at + 1}, write  ${rule}`, rebuild(evidence)],
    edits: [{ file: only.file, line: at + 1, instead: last, write: `${last}\n${rule}` }],
  }
}

/** In a file of one rule a line. */
function ruleLine({ base }: Site, document: string): string {
  return `${base}*  ${base}${document}  200`
}

/** The same in the configuration that the project has: one line in the block that answers. */
function ownRules(server: NginxHost, { site }: Evidence, document: string): CauseFix | null {
  const block = blockFor(server, site)
  const { tryFiles, kind } = block
  const rule = `try_files $uri $uri/ ${site.base}${document};`
  if (tryFiles) return lineInstead(tryFiles, rule)
  return kind === 'server' ? lineIn(block, `location ${site.base} { ${rule} }`) : lineIn(block, rule)
}

/** Directories from which builders copy files as they are. */
const copied = ['public', 'static', 'src', 'assets', 'src/assets']

/** The same as a line of the `.htaccess` that the build copies, where nothing in it answers the pages. */
async function inSource(
  { site, readFile, projectText, unanswered, survey }: Evidence,
  document: string,
): Promise<CauseFix | null> {
  const bytes = await readFile('.htaccess')
  if (bytes === null || !unanswered.every(({ by, status }) => by === 'nothing' && status === 404)) return null
  const built = decode(bytes).trim()
  for (const directory of copied) {
    const file = `${directory}/.htaccess`
    const lines = (await projectText(file))?.split('\n') ?? []
    const at = lines.findIndex((line) => line.trim() !== '')
    const first = lines[at]?.replace(/\r$/, '')
    if (first === undefined || lines.join('\n').trim() !== built) continue
    const rule = `FallbackResource ${site.base}${document}`
    return {
      steps: [`In ${file}, in front of line ${at + 1}, write  ${rule}`, rebuild({ survey })],
      edits: [{ file, line: at + 1, instead: first.trim(), write: `${rule}\n${first.trim()}` }],
    }
  }
  return null
}

/** The same in httpd's words, for the file that it reads already. */
function ofHttpd(file: string, { site }: Evidence, document: string): CauseFix {
  return {
    steps: [
      `In ${file}, write  FallbackResource ${site.base}${document}`,
      'Where rules of RewriteRule answer pages: leave them out, or end them with  RewriteRule . ' +
        `${site.base}${document} [L]  behind conditions that no file and no directory is there.`,
    ],
  }
}

function lowered(sentence: string): string {
  return sentence.charAt(0).toLowerCase() + sentence.slice(1)
}
