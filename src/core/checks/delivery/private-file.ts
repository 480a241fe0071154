import { extensionOf, nameOf } from '../../model/folder.ts'
import type { Severity } from '../../model/report.ts'
import { counted, decode, safeDecode } from '../../model/text.ts'
import { encodePath } from '../../requests/addresses.ts'
import { type Cause, type CausePlace, defineCheck, type Evidence } from '../check.ts'
import { unpublish } from '../unpublish.ts'

/** A file is in the published folder that is nobody else's business. */
export const privateFile = defineCheck({
  code: 'delivery/private-file',
  severity: 'caution',
  title: 'A file is published that is not part of the site',
  keywords: ['backup', 'private key', '.git'],
  after: ['project/needs-server', 'env/file-published', 'project/source-published', 'env/credential-shape'],
  run,
})

interface PrivateKind {
  readonly key: string
  readonly title: string
  readonly severity: Severity
  readonly what: string
  readonly impact: string
  holds(path: string, name: string): boolean
}

const keyName =
  /\.(?:pem|key|p12|pfx|jks|keystore|ppk)$|^id_(?:rsa|dsa|ecdsa|ed25519)$|^\.(?:htpasswd|netrc|pgpass)$/i
const sources = new Set([
  'ts',
  'tsx',
  'mts',
  'cts',
  'jsx',
  'vue',
  'svelte',
  'astro',
  'scss',
  'sass',
  'less',
  'styl',
])
const archive = /\.(?:zip|tar|tgz|tar\.(?:gz|bz2|xz|zst)|rar|7z|sql|sql\.gz|sqlite3?|db|dump)$/i
const backup = /(?:~|\.(?:bak|backup|old|orig|rej|save|swp|swo|tmp))$/i
const dropping =
  /^(?:\.DS_Store|\._.*|Thumbs\.db|desktop\.ini|ehthumbs\.db|npm-debug\.log.*|yarn-error\.log)$/i
const editors = /(?:^|\/)\.(?:idea|vscode|vs|fleet|settings)\//
const repository = /(?:^|\/)\.(?:git|hg|svn|bzr)\//
const tests = /\.(?:test|spec)\.[cm]?[jt]sx?$|(?:^|\/)__(?:tests|mocks|snapshots)__\//

/** Names with a dot in front that a published folder has for a reason. */
const meant =
  /(?:^|\/)\.(?:well-known(?:\/|$)|vite\/|nojekyll$|htaccess$|gitkeep$|keep$|gitignore$|gitattributes$|buildinfo$|prettierignore$|eslintignore$|domains$)/

const groups: readonly PrivateKind[] = [
  {
    key: 'repository',
    title: 'The repository is in the published folder',
    severity: 'blocker',
    what: 'of a repository',
    impact: 'can be put together to the whole source with its history',
    holds: (path) => repository.test(path),
  },
  {
    key: 'key',
    title: 'A private key is in the published folder',
    severity: 'blocker',
    what: 'with a private key or passwords',
    impact: 'gives access to whatever it opens',
    holds: (_, name) => keyName.test(name),
  },
  {
    key: 'archive',
    title: 'An archive or data base is in the published folder',
    severity: 'caution',
    what: 'that packs others and that no page links to',
    impact: 'may hold more than the site',
    holds: (_, name) => archive.test(name),
  },
  {
    key: 'backup',
    title: 'A backup copy is in the published folder',
    severity: 'caution',
    what: 'left by an editor or a backup',
    impact: 'shows what stood in the file before',
    holds: (path, name) => backup.test(name) || editors.test(path),
  },
  {
    key: 'source',
    title: 'Source or test files are in the published folder',
    severity: 'caution',
    what: 'of source or test code that no page requests',
    impact: 'shows what was not meant to be published',
    holds: (path, name) =>
      tests.test(path) || (sources.has(extensionOf(name)) && !/\.d\.[cm]?ts$/.test(name)),
  },
  {
    key: 'dropping',
    title: "A file manager's leftovers are in the published folder",
    severity: 'note',
    what: 'that a file manager or a tool left behind',
    impact: 'names files and folders of the machine it comes from',
    holds: (_, name) => dropping.test(name),
  },
  {
    key: 'hidden',
    title: 'A hidden file is in the published folder',
    severity: 'caution',
    what: 'with a dot in front of its name or directory',
    impact: 'is published though its name hides it',
    holds: (path) => /(?:^|\/)\.[^/]/.test(path) && !meant.test(path),
  },
]

async function run(evidence: Evidence): Promise<Cause[]> {
  const { facts, requested, host, reported } = evidence
  // Where the sources or a server's program are published, one finding says so.
  const whole = ['project/source-published', 'project/needs-server']
  if (reported.some(({ check: { code } }) => whole.includes(code))) return []
  const toldOf = new Set(reported.flatMap(({ cause: { places } }) => places.map(({ file }) => file)))
  const linked = linkedFiles(evidence)
  const found = new Map<PrivateKind, string[]>()
  for (const { path } of facts) {
    const name = nameOf(path)
    if (requested.reached.has(path) || linked.has(path) || toldOf.has(path)) continue
    if (path.split('/').some((step) => host.withheld.some((start) => step.startsWith(start)))) continue
    const group = groups.find((each) => each.holds(path, name))
    if (!group || environmentFile.test(name)) continue
    if (group.key === 'key' && !(await holdsKey(path, evidence))) continue
    found.set(group, [...(found.get(group) ?? []), path])
  }
  return Promise.all([...found].map(([group, paths]) => causeOf(group, paths, evidence)))
}

/** Those are reported by `env/file-published`, which also knows which of them are examples. */
const environmentFile = /^\.env(?:\.|$)/

function linkedFiles({ site, requested }: Evidence): Set<string> {
  const found = new Set<string>()
  for (const path of requested.links.keys())
    if (path.startsWith(site.base)) found.add(safeDecode(path.slice(site.base.length)))
  return found
}

/** Certificates and public keys bear the same names, and are public. */
async function holdsKey(path: string, { readFile }: Evidence): Promise<boolean> {
  if (!/\.(?:pem|key)$/i.test(path)) return true
  const bytes = await readFile(path)
  return bytes !== null && /PRIVATE KEY/.test(decode(bytes.subarray(0, 100_000)))
}

async function causeOf(group: PrivateKind, paths: readonly string[], evidence: Evidence): Promise<Cause> {
  const { site, folder } = evidence
  const [first = ''] = paths
  const places: CausePlace[] = paths.map((path) => ({
    file: path,
    offset: null,
    length: 0,
    request: site.address + encodePath(path),
    status: 200,
  }))
  return {
    key: group.key,
    severity: group.severity,
    title: group.title,
    impact: `Whoever requests ${site.address}${first} gets it: it ${group.impact}.`,
    cause: `${folder.name} holds ${counted(paths.length, 'file')} ${group.what}.`,
    places,
    fix: await unpublish(
      paths,
      evidence,
      group.key === 'key' ? ['If this folder was ever published: replace the key.'] : [],
    ),
  }
}
