import type { Served } from '../checks/evidence.ts'
import type { Host } from '../host/host.ts'
import { sendsFiles } from '../host/nginx/host.ts'
import { assumedHost } from '../host/presets.ts'
import { serverHost } from '../host/server-host.ts'
import { assumedSite, type Site } from '../model/site.ts'
import { type RuleFile, ruleFilesIn, rulesAt } from '../project/declared/rule-files.ts'
import { includesBeside, serverFileIn } from '../project/declared/server-files.ts'
import type { Target } from './open.ts'
import type { CheckOptions } from './options.ts'

/** Directories of a project whose files may be meant for the folder: copied as they are, or forgotten. */
const ruleDirectories = ['', 'public', 'static', 'src', 'config', 'deploy']

/** Where the folder is served and how: as it was said, else at the base path it expects, from plain files. */
export async function serve(target: Target, base: string, options: CheckOptions): Promise<Served> {
  const site = options.site ?? assumedSite(base)
  const ruleFiles = await readRuleFiles(target)
  const found = options.host ?? (await configuredHost(target, site))
  return {
    site,
    host: withRules(found ?? assumedHost, site, ruleFiles.live),
    hostGiven: found !== null,
    ruleFiles,
  }
}

/** The host that the project's own server configuration describes, where it is one for files. */
async function configuredHost({ project, survey }: Target, site: Site): Promise<Host | null> {
  if (!survey.project) return null
  const found = await serverFileIn(project, survey.publishDirectory?.value ?? null)
  if (!found) return null
  const host = await serverHost(found.file, found.text, includesBeside(project, found.file), found.mount)
  return host.server && sendsFiles(host.server, site) ? host : null
}

/** The files with rules for the host. Of the project's, a host reads data files itself; text must be published. */
async function readRuleFiles({ build, project, survey }: Target): Promise<Served['ruleFiles']> {
  // A server's program has lists of its own, for itself.
  const live = build && survey.output?.value !== 'server' ? await ruleFilesIn(build) : []
  if (!survey.project) return { live, declared: [] }
  const declared = (await Promise.all(ruleDirectories.map((each) => ruleFilesIn(project, each)))).flat()
  const fromRepository = declared.filter(({ file, kind }) => kind === 'data' && !file.includes('/'))
  return { live: [...live, ...fromRepository], declared }
}

/** The host with the rules of these files behind its own. */
function withRules(host: Host, site: Site, files: readonly RuleFile[]): Host {
  const rules = files.flatMap((file) => rulesAt(site.base, file.rules))
  return rules.length === 0 ? host : { ...host, rules: [...host.rules, ...rules] }
}
