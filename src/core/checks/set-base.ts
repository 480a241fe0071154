import { describeOrigin, isFromSame, type Place, type Reading } from '../model/reading.ts'
import type { Edit } from '../model/report.ts'
import { normaliseBase } from '../model/site.ts'
import { buildCommandOf, type CauseFix, type Evidence, rebuild } from './check.ts'
import { optionEdit, productionMode } from './production-mode.ts'
import { writtenFor } from './written-for.ts'

/** How the base path of the site is set: in the configuration, the manifest or the build command, whichever the framework reads. */
export function setBase(evidence: Evidence): CauseFix {
  const { survey, site } = evidence
  const { definition, basePath } = survey
  if (basePath?.inactive && isBase(basePath, site.base)) {
    const { step, option } = basePath.inactive
    const edit = option === undefined ? null : optionEdit(option, evidence)
    return { steps: [step, rebuild(evidence)], edits: edit ? [edit] : [] }
  }
  if (basePath?.dependsOn !== undefined) return byVariable(basePath.dependsOn, evidence)
  const setting =
    (isInAddress(evidence) && definition?.fixes.setSite?.(site)) ||
    definition?.fixes.setBase?.(site.base, site.origin)
  if (definition?.fixes.noBase !== undefined) return { steps: [definition.fixes.noBase] }
  if (!definition || setting === undefined) return bySettings(evidence)
  const [step, edit] = writeBase(setting, evidence)
  const router = routerStep(evidence)
  const more = basePath?.inactive ? [basePath.inactive.step] : []
  return {
    steps: [step, ...(router ? [router.step] : []), ...more, rebuild(evidence)],
    edits: [...(edit ? [edit] : []), ...(router ? [router.edit] : [])],
  }
}

/** The setting that holds the site's whole address says the base path too. */
function isInAddress({ survey: { basePath, siteAddress } }: Evidence): boolean {
  return basePath !== null && siteAddress !== null && isFromSame(basePath, siteAddress)
}

/** Of a builder that is not known: every setting of a telling name that says what the build starts from. */
function bySettings(evidence: Evidence): CauseFix {
  const { survey, site, requested } = evidence
  const now = requested.observed?.base
  const written = survey.baseSettings
    .filter(({ value }) => now !== undefined && normaliseBase(value) === now)
    .map(({ name, value, at }) => {
      const base = value === '/' || value.endsWith('/') ? site.base : site.base.replace(/(?!^)\/$/, '')
      return inFile(isData(at.file) ? `${name} = "${base}"` : `${name}: '${base}',`, at, 'write')
    })
  const steps = written.map(([step]) => step)
  return {
    steps: [
      ...(steps.length > 0 ? steps : [`Set the base path of the build to ${site.base}.`]),
      rebuild(evidence),
    ],
    edits: written.flatMap(([, edit]) => edit ?? []),
  }
}

function isData(file: string): boolean {
  return !/\.[cm]?[jt]s$/.test(file)
}

/** Where a setting is written: in words, and for a program. */
type Written = readonly [step: string, edit: Edit | null]

function writeBase(setting: string, evidence: Evidence): Written {
  const { basePath, build, definition } = evidence.survey
  const from = basePath !== null && 'file' in basePath.from ? basePath.from : null
  // What was seen in a page is not what the configuration states, and stands there all the same.
  const at = from && (basePath?.certainty !== 'inferred' || isPage(from.file)) ? from : null
  if (at && build?.at?.file === at.file && build.at.line === at.line)
    return inCommand(
      setting.startsWith('--') ? setting : `--base ${evidence.site.base}`,
      at,
      basePath?.value ?? null,
      evidence,
    )
  // A page may say itself what its URLs start from.
  const member = setting.startsWith('--') ? asMember(setting) : setting
  if (at) return inFile(isPage(at.file) ? `<base href="${evidence.site.base}">` : member, at, 'write')
  if (definition?.fixes.baseIn === 'command') return inCommand(setting, build?.at ?? null, null, evidence)
  if (definition?.fixes.baseIn === 'manifest')
    return [
      `In package.json, add at the top level  ${setting}`,
      { file: 'package.json', line: null, write: setting },
    ]
  return inConfiguration(setting, evidence)
}

function isPage(file: string): boolean {
  return /\.html?$/.test(file)
}

/** A setting at the place of its value, or of the object that gets it. */
export function inFile(setting: string, { file, line, column }: Place, verb: 'write' | 'add'): Written {
  const write = writtenFor(file, setting)
  const where =
    verb === 'write' ? `In ${file}, line ${line}, write` : `In ${file}, in the object of line ${line}, add`
  return [`${where}  ${write}`, { file, line, column, write }]
}

function inConfiguration(setting: string, { survey }: Evidence): Written {
  const { baseAt, config, definition } = survey
  if (baseAt) return inFile(setting, baseAt, 'add')
  // A framework above another one has a configuration of its own, in which the base path is not set.
  const file = baseAt === null && config ? config.file : null
  if (file !== null)
    return [
      `In ${file}, set  ${writtenFor(file, setting)}`,
      { file, line: null, write: writtenFor(file, setting) },
    ]
  const fresh = definition?.fixes.newConfig?.(setting)
  if (fresh)
    return [
      `Write ${fresh.file}, with  ${fresh.text.trim().replace(/\s+/g, ' ')}`,
      { file: fresh.file, line: null, write: setting, whole: fresh.text },
    ]
  const [usual] = definition?.configFiles ?? []
  return [usual ? `In ${usual}, set  ${writtenFor(usual, setting)}` : `Set  ${setting}`, null]
}

function inCommand(option: string, at: Place | null, now: string | null, evidence: Evidence): Written {
  const { build } = evidence.survey
  const command = buildCommandOf(evidence)
  if (build?.at && build.matched === null)
    return [
      `Give the builder the option ${option}, or  ${asMember(option)}  in the script that calls it.`,
      null,
    ]
  if (!at) return [`Give the build command (${command}) the option ${option}.`, null]
  const step =
    now === null
      ? `In ${at.file}, line ${at.line}, give the build the option ${option}.`
      : `In ${at.file}, line ${at.line}, give the build ${option} instead of ${now}.`
  return [step, { file: at.file, line: at.line, write: option, after: build?.matched ?? undefined }]
}

/** An option as a member of what a script gives the builder: `publicPath: '/b/'` for `--public-path=/b/`. */
function asMember(option: string): string {
  const [, name = '', value = ''] = /^--([\w-]+)[= ](.*)$/.exec(option) ?? []
  return `${name.replace(/-(\w)/g, (_, letter: string) => letter.toUpperCase())}: '${value}',`
}

/** The router's own base is the other half of it, where the framework has it as a setting beside. */
function routerStep({ survey: { routerBase }, site }: Evidence): { step: string; edit: Edit } | null {
  if (!routerBase?.write || (routerBase.base.value !== null && isBase(routerBase.base, site.base)))
    return null
  const { place, base, write } = routerBase
  const [step, edit] = inFile(write(site.base), place, base.certainty === 'stated' ? 'write' : 'add')
  return edit && { step, edit }
}

/** A build for development has another base path by the configuration's own words. */
function byVariable(name: string, evidence: Evidence): CauseFix {
  if (name === 'NODE_ENV') return productionMode(evidence)
  const isToSet = !isBase(evidence.survey.basePath as Reading<string | null>, evidence.site.base)
  return {
    steps: [setVariable(evidence), rebuild(evidence)],
    // What the variable is to hold, so that this base path comes of it, its reader knows.
    ...(isToSet && { variables: [name] }),
  }
}

function setVariable({ survey, site }: Evidence): string {
  const { basePath } = survey
  const { dependsOn: name, setAt, from } = basePath as Reading<string | null>
  const where = describeOrigin(from)
  const isRight = basePath !== null && isBase(basePath, site.base)
  if (!isRight)
    return `Set ${name} where the build runs${setAt ? ` (${describeOrigin(setAt)})` : ''} so that the base path becomes ${site.base} (${where} reads it).`
  return setAt
    ? `Build with ${name} as ${describeOrigin(setAt)} sets it (${where} reads it).`
    : `Build without ${name}, which set another base path when this was built (${where} reads it).`
}

function isBase({ value }: Reading<string | null>, base: string): boolean {
  return value !== null && normaliseBase(value) === base
}
