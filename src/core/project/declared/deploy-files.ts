import { extensionOf, type Folder, joinPath, listIfThere } from '../../model/folder.ts'
import type { Folded } from '../../syntax/value.ts'
import { type ContainerFile, readContainerFiles } from './container-files.ts'
import { commandsInData, commandsInScripts, type ShippingCommand } from './shipping-commands.ts'
import { readData } from './visit-data.ts'

/** Data files at the root that say nothing of deployment. */
const otherFiles =
  /^(?:package(?:-lock)?|npm-shrinkwrap|composer|tsconfig.*|jsconfig|angular|nx|turbo|lerna|biome|components|deno|renovate|project|manifest|site|app)\.jsonc?$|^pnpm-(?:lock|workspace)\.ya?ml$|-lock\.|^_config\.|^(?:hugo|config|pubspec|Cargo|pyproject)\./

/** Dot folders of editors, tools and repositories. */
const otherFolders =
  /^\.(?:git|hg|svn|vscode|idea|storybook|next|nuxt|output|svelte-kit|astro|cache|parcel-cache|angular|husky|yarn|pnpm-store|vitepress|docusaurus|nitro|vinxi|tanstack|react-router)$/

const deepestDotFolder = 3

/** A file that says how the project is built or deployed, folded to data. */
export interface DeployFile {
  readonly file: string
  readonly value: Folded
}

/** All files of a directory that say how it is built or deployed. */
export interface DeployFiles {
  readonly data: readonly DeployFile[]
  readonly containers: readonly ContainerFile[]
  readonly commands: readonly ShippingCommand[]
}

/** Root-level JSON, YAML and TOML, and pipeline files in dot folders; container files; scripts of a shell. No format is known by name. */
export async function readDeployFiles(folder: Folder): Promise<DeployFiles> {
  const data: DeployFile[] = []
  for (const file of await dataFiles(folder)) {
    const value = await readData(folder, file)
    if (value) data.push({ file, value })
  }
  const commands = [
    ...data.flatMap(({ value }) => commandsInData(value)),
    ...(await commandsInScripts(folder)),
  ]
  return { data, containers: await readContainerFiles(folder), commands }
}

async function dataFiles(folder: Folder): Promise<string[]> {
  const files: string[] = []
  for (const { name, kind } of (await listIfThere(folder, '')) ?? []) {
    if (kind === 'file' && isData(name) && !otherFiles.test(name)) files.push(name)
    if (kind === 'directory' && name.startsWith('.') && !otherFolders.test(name))
      files.push(...(await pipelineFiles(folder, name, 1)))
  }
  return files
}

async function pipelineFiles(folder: Folder, directory: string, depth: number): Promise<string[]> {
  const files: string[] = []
  for (const { name, kind } of (await listIfThere(folder, directory)) ?? []) {
    const path = joinPath(directory, name)
    if (kind === 'file' && isData(name)) files.push(path)
    else if (kind === 'directory' && depth < deepestDotFolder)
      files.push(...(await pipelineFiles(folder, path, depth + 1)))
  }
  return files
}

function isData(name: string): boolean {
  return (
    ['json', 'jsonc', 'yaml', 'yml', 'toml'].includes(extensionOf(name)) || /^\.[a-z-]+\.ya?ml$/.test(name)
  )
}
