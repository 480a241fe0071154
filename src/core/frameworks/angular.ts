import { joinPath } from '../model/folder.ts'
import { byDefault, inferred, type Reading } from '../model/reading.ts'
import { type Folded, member } from '../syntax/value.ts'
import { type ConfiguredVariable, defineFramework, type FrameworkReadings } from './framework.ts'
import type { ProjectSources } from './project-sources.ts'
import { leavesOf, option, placeOf, proxyPaths, text } from './readings.ts'

const by = "Angular's default"

/** Builders that write the page one directory further down, into `browser`. */
const applicationBuilder = /:application$/

/** Angular with either builder. Checked against 21. Its settings depend on the application and the configuration that are built. */
export const angular = defineFramework({
  name: 'angular',
  title: 'Angular',
  markers: ['@angular/core'],
  over: ['vite'],
  configOptions: [],
  configFiles: ['angular.json', '.angular.json'],
  commands: ['ng build'],
  settings: { publishDirectory: { default: 'dist' }, basePath: { default: '/' } },
  refine: readAngular,
  routeList: (directory) => joinPath(directory, '../prerendered-routes.json'),
  signs: { page: [/<app-root[\s>]/, /\bng-version=/] },
  fixes: {
    setBase: (base) => `"baseHref": "${base}",`,
    environmentFile: 'src/environments/environment.ts',
  },
})

async function readAngular(project: ProjectSources): Promise<Partial<FrameworkReadings>> {
  const { build, config } = project
  const [name, application] = chosen(config?.value ?? null, build.words[0])
  const target = member(application, 'architect', 'build') ?? member(application, 'targets', 'build')
  const configuration = configurationOf(build, target).value ?? 'production'
  const setting = (...path: string[]): Folded | null =>
    member(target, 'configurations', configuration, ...path) ?? member(target, 'options', ...path)
  const directory =
    option(build, 'output-path') ?? text(setting('outputPath')) ?? text(setting('outputPath', 'base'))
  const below = applicationBuilder.test(text(target, 'builder')?.value ?? '')
    ? (text(setting('outputPath', 'browser'))?.value ?? 'browser')
    : ''
  const output = directory ?? byDefault(`dist/${name}`, by)
  const mode = text(setting('outputMode'))
  const configured = await environmentOf(project, target, configuration)
  const proxyFile =
    text(member(target, 'options'), 'proxyConfig') ??
    text(member(application, 'architect', 'serve', 'options'), 'proxyConfig')
  const proxy = proxyFile?.value ? proxyPaths(await project.fold(proxyFile.value.replace(/^\.\//, ''))) : null
  return {
    publishDirectory: {
      ...output,
      value: output.value === null ? null : [output.value, below].filter(Boolean).join('/'),
    },
    basePath:
      option(build, 'base-href') ??
      text(setting('baseHref')) ??
      (await baseOfPage(project, setting('index'))),
    mode: configurationOf(build, target),
    prefixes: byDefault(configured.length > 0 ? [environmentPrefix] : [], by),
    configured,
    devProxy: proxy ?? byDefault([], by),
    output: mode?.value === 'server' ? { ...mode, value: 'server' } : byDefault('static', by),
  }
}

/** Angular reads no environment: a file with this object is exchanged for another, by configuration. */
const environmentPrefix = 'environment.'

/** The members of the environment file that the build takes, with those of development's. */
async function environmentOf(
  { fold }: ProjectSources,
  target: Folded | null,
  configuration: string,
): Promise<ConfiguredVariable[]> {
  const replaced = (name: string): [string, string][] => {
    const list = member(target, 'configurations', name, 'fileReplacements')
    return (list?.kind === 'list' ? list.items : []).flatMap((item): [string, string][] => {
      const from = text(item, 'replace')?.value
      const to = text(item, 'with')?.value
      return from && to ? [[from, to]] : []
    })
  }
  const [own, other] = [replaced(configuration), replaced('development')]
  const base = [...own, ...other].map(([from]) => from).find((file) => /environment/.test(file))
  if (base === undefined) return []
  const file = (list: [string, string][]): string =>
    joinPath(list.find(([from]) => from === base)?.[1] ?? base)
  const used = file(own)
  const elsewhere = file(other) === used ? joinPath(base) : file(other)
  const early = new Map(
    leavesOf(await fold(elsewhere, 'environment')).map(({ path, value }) => [path.join('.'), value]),
  )
  return leavesOf(await fold(used, 'environment')).map(({ path, value, at, siblings }) => ({
    name: `${environmentPrefix}${path.join('.')}`,
    members: ['environment', ...path],
    place: at,
    siblings,
    value,
    development: elsewhere === used ? null : (early.get(path.join('.')) ?? null),
    missing: ['undefined'],
  }))
}

function configurationOf(build: ProjectSources['build'], target: Folded | null): Reading<string | null> {
  return (
    option(build, 'configuration', 'c') ?? text(target, 'defaultConfiguration') ?? byDefault('production', by)
  )
}

/** The application that is built: the one named, the default one, or the first. */
function chosen(config: Folded | null, named: string | undefined): [string, Folded | null] {
  const projects = member(config, 'projects')
  const name = named ?? text(config, 'defaultProject')?.value
  const members = projects?.kind === 'object' ? [...projects.members] : []
  const first = members.find(([, value]) => text(value, 'projectType')?.value !== 'library') ?? members[0]
  return members.find(([key]) => key === name) ?? first ?? ['', null]
}

/** Without a setting, the entry page's own `<base href>` stays. */
async function baseOfPage(project: ProjectSources, index: Folded | null): Promise<Reading<string>> {
  const file = text(index)?.value ?? 'src/index.html'
  const source = await project.text(file)
  const found = source === null ? null : placeOf(file, source, /<base\s[^>]*href=["']([^"']*)["']/i)
  return found ? inferred(found.value, found.place) : byDefault('/', by)
}
