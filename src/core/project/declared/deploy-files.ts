import { extensionOf, type Folder, joinPath, listIfThere } from '../../model/folder.ts'
import type { Folded } from '../../syntax/value.ts'
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

/** Root-level JSON, YAML and TOML, and pipeline files in dot folders. No format is known by name. */
export async function readDeployFiles(folder: Folder): Promise<DeployFile[]> {
  const found: DeployFile[] = []
  for (const file of await dataFiles(folder)) {
    const value = await readData(folder, file)
    if (value) found.push({ file, value })
  }
  return found
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
