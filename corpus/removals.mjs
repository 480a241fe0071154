// Takes every file away in turn from a sound build, up to a bound: is one that is needed missed by name, and is
// nothing said of one that nothing requests them for? What a file's neighbours say of it is the measure, read by plain search.
import { createHash } from 'node:crypto'
import { examine } from '../dist/core/pipeline/check.js'
import { open } from '../dist/core/pipeline/open.js'
import { readBuild } from '../dist/core/pipeline/read-build.js'

const most = 60
/** Named in comments of scripts, which nobody but a developer's tools follows. */
const byTools = { '\\.map$': 'a source map', '\\.LICENSE\\.txt$': 'licences' }
const texts = /\.(?:html?|css|m?js|json|webmanifest|svg|xml|txt|map|data)$/

/**
 * @param folder the project, built
 * @param options as `check` takes them
 * @param exceptions `unrequested`: patterns of files that are named somewhere and yet requested by nobody; `requested`: of files
 * that are requested and named nowhere. Each with the reason.
 */
export async function removeInTurn(folder, options, { unrequested = {}, requested = {} } = {}) {
  const target = await open(folder, options.build ?? null)
  const facts = await readBuild(target)
  const named = await namesIn(target.build, facts, options.site.base)
  const files = facts.filter(({ kind }) => kind !== 'page')
  const chosen = files.length <= most ? files : spread(files)
  // What a sound build has to be reported of anyway, as that it ships maps, is no alarm of a missing file.
  const anyway = new Set((await examine(target, facts, options)).findings.map(({ code }) => code))
  const result = { files: chosen.length, requested: 0, found: 0, missed: [], falseAlarms: [] }
  await removePages(target, facts, options, result)
  for (const { path } of chosen) {
    const rest = facts.filter((file) => file.path !== path)
    const { findings } = await examine(target, rest, options)
    const heard = findings.some(({ cause, places }) =>
      [cause, ...places.map(({ request }) => decodeURI(request ?? ''))].some((text) => text.includes(path)),
    )
    const reason = Object.entries({ ...byTools, ...unrequested }).find(([pattern]) =>
      new RegExp(pattern).test(path),
    )
    const byRule = Object.keys(requested).some((pattern) => new RegExp(pattern).test(path))
    const needed = (named(path) || byRule) && !reason
    if (needed) result.requested++
    if (needed && heard) result.found++
    if (needed && !heard) result.missed.push(path)
    const [alarm] = findings.filter(({ code }) => !anyway.has(code))
    if (!needed && !reason && alarm) result.falseAlarms.push(`${path}: ${alarm.code} ${alarm.cause}`)
    if (needed && heard && !(await heardOfCase(target, facts, options, path))) {
      result.missed.push(`${path}, renamed in letter case,`)
    }
    if (reason && heard) result.falseAlarms.push(`${path} is said to be requested by nobody, and was missed`)
  }
  return result
}

/** A page that others link to, or that the sources make, answers an error once it is gone, and that is reported of its path. */
async function removePages(target, facts, options, result) {
  const whole = await examine(target, facts, options)
  const pages = facts.filter(({ path, kind }) => kind === 'page' && path !== 'index.html').slice(0, 10)
  for (const { path } of pages) {
    const route = options.site.base + path.replace(/(?:index)?\.html$/, '')
    const isRoute = whole.routes.some(
      (each) =>
        each.path.replace(/\/$/, '') === route.replace(/\/$/, '') &&
        !('file' in each.from && each.from.file === path),
    )
    if (!isRoute) continue
    const { findings } = await examine(
      target,
      facts.filter((file) => file.path !== path),
      options,
    )
    const reported = findings.filter(({ code }) => code === 'route/no-answer' || code === 'route/broken-link')
    const heard = reported.length === 1 && JSON.stringify(reported).includes(route.replace(/\/$/, ''))
    result.files++
    result.requested++
    if (heard) result.found++
    else result.missed.push(path)
  }
}

/** The same file under a name in other letter case: it is there on this disk, and not for the host. */
async function heardOfCase(target, facts, options, path) {
  const name = path.slice(path.lastIndexOf('/') + 1)
  const other = name.replace(/[a-z](?!.*[a-z])/i, (letter) =>
    letter === letter.toLowerCase() ? letter.toUpperCase() : letter.toLowerCase(),
  )
  const renamed = facts.map((file) =>
    file.path === path ? { ...file, path: path.slice(0, -name.length) + other } : file,
  )
  const { findings } = await examine(target, renamed, options)
  return findings.some(({ code, cause }) => code === 'asset/letter-case' && cause.includes(path))
}

/** Whether another file of the build holds a file's name. Names that are joined at run time are searched by their parts. */
async function namesIn(build, facts, base) {
  const held = []
  for (const { path } of facts) {
    if (!texts.test(path)) continue
    held.push({ path, text: Buffer.from(await build.read(path)).toString('utf8') })
  }
  return (path) => {
    const name = path.slice(path.lastIndexOf('/') + 1)
    const parts = name.split('.')
    const hash = parts.find((part) => /^(?=.*\d)[\da-f]{8,}$/.test(part))
    // Copies of one file in several directories: the whole path tells which of them is meant.
    const copies = facts.filter((other) => other.path.endsWith(`/${name}`) || other.path === name).length > 1
    if (copies) {
      const whole = [`${base}${path}`, `./${path}`, `"${path}`, `'${path}`, `(${path}`, `\`${path}`]
      return held.some((other) => other.path !== path && whole.some((text) => other.text.includes(text)))
    }
    return held.some(
      (other) =>
        other.path !== path &&
        !other.path.endsWith('.map') &&
        (other.text.includes(name) || (hash !== undefined && other.text.includes(hash))),
    )
  }
}

/** A choice that is the same every time: by the hash of the name. */
function spread(files) {
  const order = ({ path }) => createHash('sha256').update(path).digest('hex')
  return [...files].sort((a, b) => (order(a) < order(b) ? -1 : 1)).slice(0, most)
}
