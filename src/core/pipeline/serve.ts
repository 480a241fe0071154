import type { Served } from '../checks/evidence.ts'
import type { Host } from '../host/host.ts'
import type { DirectoryFile } from '../host/httpd/read.ts'
import { assumedHost } from '../host/presets.ts'
import { isOfFiles, serverHost } from '../host/server-host.ts'
import type { FileFacts } from '../model/facts.ts'
import { directoryOf, type Folder, nameOf } from '../model/folder.ts'
import { assumedSite, type Site } from '../model/site.ts'
import { readText } from '../model/text.ts'
import { type RuleFile, ruleFilesIn, rulesAt } from '../project/declared/rule-files.ts'
import { includesBeside, serverFileIn } from '../project/declared/server-files.ts'
import { ownHost } from '../project/declared/status-rules.ts'
import type { Target } from './open.ts'
import type { CheckOptions } from './options.ts'

/** Directories of a project whose files may be meant for the folder: copied as they are, or forgotten. */
const ruleDirectories = ['', 'public', 'static', 'src', 'config', 'deploy']

/** More than a site has that somebody keeps by hand. */
const mostDirectoryFiles = 200

/** Where the folder is served and how: as it was said, else at the base path it expects, from plain files. */
export async function serve(
  target: Target,
  base: string,
  facts: readonly FileFacts[],
  options: CheckOptions,
): Promise<Served> {
  const site = options.site ?? assumedSite(base)
  const ruleFiles = await readRuleFiles(target)
  const found = options.host ?? (await configuredHost(target, site, facts, ruleFiles.live.length > 0))
  return {
    site,
    host: withRules(found ?? assumedHost, site, ruleFiles.live),
    hostGiven: found !== null,
    ruleFiles,
  }
}

/**
 * The host that the project's own server configuration describes, where it is one for files; else that of the folder's `.htaccess` files.
 * @param hasRules whether the project has rules for another kind of host: then only a container says that this server is the one
 */
async function configuredHost(
  { project, survey, build }: Target,
  site: Site,
  facts: readonly FileFacts[],
  hasRules: boolean,
): Promise<Host | null> {
  const files = build && !hasRules ? await directoryFiles(build, facts) : []
  const named = survey.project ? await serverFileIn(project, survey.publishDirectory?.value ?? null) : null
  const found = named?.isCopied || !hasRules ? named : null
  if (!found && files.length === 0) return null
  const include = found ? includesBeside(project, found.file) : undefined
  const host = await serverHost(found, {
    files,
    ...(found && { mount: found.mount }),
    ...(include && { include }),
  })
  return host.server && isOfFiles(host.server, site) ? host : null
}

async function directoryFiles(build: Folder, facts: readonly FileFacts[]): Promise<DirectoryFile[]> {
  const paths = facts.map(({ path }) => path).filter((path) => nameOf(path) === '.htaccess')
  const files: DirectoryFile[] = []
  for (const path of paths.slice(0, mostDirectoryFiles)) {
    const text = await readText(build, path)
    if (text !== null) files.push({ directory: directoryOf(path), file: path, text })
  }
  return files
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
  const { host: name } = new URL(site.origin)
  const rules = files
    .flatMap((file) => rulesAt(site.base, file.rules))
    .map((rule) => ({ ...rule, to: rule.to?.replace(ownHost, name) ?? null }))
  return rules.length === 0 ? host : { ...host, rules: [...host.rules, ...rules] }
}
