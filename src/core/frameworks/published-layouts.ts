import type { FileFacts } from '../model/facts.ts'
import { byDefault, inferred, type Reading, stated } from '../model/reading.ts'
import { defineFramework, type NeededFile } from './framework.ts'
import type { ProjectSources } from './project-sources.ts'
import { option, placeOf } from './readings.ts'

// These two are read by their published layouts alone: their tools are not part of our corpus.

/** Flutter for the web, by its published layout. */
export const flutter = defineFramework({
  markers: [],
  needsNoManifest: true,
  name: 'flutter',
  title: 'Flutter for the web',
  configFiles: ['pubspec.yaml'],
  isOwn: (config) => /^[ \t]*sdk:[ \t]*flutter\b/m.test(config),
  commands: ['flutter build web'],
  settings: {
    publishDirectory: { options: ['output', 'o'], default: 'build/web' },
    basePath: { options: ['base-href'], default: '/' },
  },
  placeholders: /^\$FLUTTER_BASE_HREF$/,
  needs: (files) => [...programOf(files), ...manifestsOf(files)],
  signs: { files: [/^flutter(?:_bootstrap|_service_worker)?\.js$/] },
  fixes: { setBase: (base) => `--base-href ${base}`, baseIn: 'command', environmentFile: null },
})

/** The program, in each form that the loader's list of builds names. */
function programOf(files: readonly FileFacts[]): NeededFile[] {
  const loader = files.find(({ path }) => path === 'flutter_bootstrap.js')
  const raws = [...(loader?.references ?? [])].map(({ raw }) => raw)
  const names = new Set(raws.filter((raw) => /^main\.dart\.\w+$/.test(raw)))
  return loader ? [...names].map((path) => ({ from: loader.path, path })) : []
}

/** What the engine reads before the first frame. */
function manifestsOf(files: readonly FileFacts[]): NeededFile[] {
  const program = files.find(({ path }) => path === 'main.dart.js')?.path
  return program
    ? ['FontManifest', 'AssetManifest.bin'].map((name) => ({ from: program, path: `assets/${name}.json` }))
    : []
}

/** Blazor WebAssembly, by its published layout. */
export const blazor = defineFramework({
  markers: [],
  needsNoManifest: true,
  name: 'blazor',
  title: 'Blazor WebAssembly',
  configFiles: ['*.csproj'],
  isOwn: (project) => project.includes('BlazorWebAssembly'),
  commands: ['dotnet publish'],
  settings: { publishDirectory: { default: 'bin/Release/publish/wwwroot' }, basePath: { default: '/' } },
  refine: async (project) => {
    const directory = option(project.build, 'output', 'o')
    return {
      publishDirectory: directory
        ? { ...directory, value: `${directory.value}/wwwroot` }
        : await publishFolder(project),
      basePath: await baseOfPage(project),
    }
  },
  needs: (files) => {
    // Since .NET 10 the list of what to start with stands in the loader, whose name then carries a hash.
    const loader = files.find(({ path }) => path === '_framework/dotnet.js')?.path
    return loader ? [{ from: loader, path: '_framework/blazor.boot.json' }] : []
  },
  signs: { files: [/^_framework\/blazor\.(?:webassembly|boot)\.js(?:on)?$/] },
  fixes: { setBase: (base) => `<base href="${base}" />`, environmentFile: null },
})

async function baseOfPage({ text }: ProjectSources): Promise<Reading<string>> {
  const file = 'wwwroot/index.html'
  const source = await text(file)
  const found = source === null ? null : placeOf(file, source, /<base\s[^>]*href=["']([^"']*)["']/i)
  return found ? stated(found.value, found.place) : byDefault('/', 'the entry page')
}

/** `dotnet publish` builds for release, below the name of the framework the project file targets. */
async function publishFolder({ names, text }: ProjectSources): Promise<Reading<string>> {
  const file = [...names].find((name) => name.endsWith('.csproj'))
  const source = file === undefined ? null : await text(file)
  const target = file && source ? placeOf(file, source, /<TargetFramework>\s*([\w.-]+)\s*</) : null
  return target
    ? inferred(`bin/Release/${target.value}/publish/wwwroot`, target.place)
    : byDefault('bin/Release/publish/wwwroot', "the publish command's default")
}
