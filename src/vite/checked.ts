import { existsSync, statSync } from 'node:fs'
import { join } from 'node:path'
import type { ResolvedConfig } from 'vite'
import { type CheckOptions, check } from '../core/check.ts'
import { FolderError } from '../core/model/folder.ts'
import type { Report } from '../core/model/report.ts'
import { UsageError } from '../core/model/site.ts'
import { openProject } from '../core/open.ts'
import { projectOptions } from '../node/configuration/project-options.ts'
import { DiskFolder } from '../node/disk-folder.ts'
import { parallelReader } from '../node/reading/parallel-reader.ts'
import { version } from '../node/version.ts'
import { renderReport } from '../terminal/report.ts'
import { styleFor } from '../terminal/style.ts'
import type { WardoscopeOptions } from './plugin.ts'
import { environmentOf, readingsOf } from './resolved.ts'

const page = /\.html?$/

/** One run of the bundler, and what it wrote. */
export class Checked {
  readonly #config: ResolvedConfig
  readonly #options: WardoscopeOptions
  readonly #project: Promise<{ folder: DiskFolder; publishDirectory: string | null } | null>
  readonly #started = Date.now()
  /** Directories with a page, below the project. */
  readonly #written = new Set<string>()
  #waits = false

  constructor(config: ResolvedConfig, options: WardoscopeOptions) {
    this.#config = config
    this.#options = options
    this.#project = this.#survey()
  }

  wrote(directory: string, files: readonly string[]): void {
    if (files.some((file) => page.test(file))) this.#written.add(directory)
    // A framework writes its pages when the bundler is done: then its own folder is looked at.
    else this.#waits = true
  }

  /** Looks at every folder that has pages now. @throws {Error} when one is held and that fails the build. */
  async look(): Promise<void> {
    const directories = [...this.#written]
    this.#written.clear()
    for (const directory of directories) await this.#lookAt(directory)
    if (this.#waits && directories.length === 0) {
      this.#waits = false
      process.once('beforeExit', () => void this.#lookAtEnd())
    }
  }

  async #survey(): Promise<{ folder: DiskFolder; publishDirectory: string | null } | null> {
    try {
      const folder = await DiskFolder.open(this.#config.root)
      const found = await openProject(folder, null)
      return { folder, publishDirectory: found?.survey.publishDirectory?.value ?? null }
    } catch (error) {
      if (error instanceof FolderError || error instanceof UsageError) return null
      throw error
    }
  }

  /** The process is about to end: what the framework published, when it is of this run. */
  async #lookAtEnd(): Promise<void> {
    const directory = (await this.#project)?.publishDirectory ?? null
    if (directory === null) return
    const entry = join(this.#config.root, directory, 'index.html')
    if (!existsSync(entry) || statSync(entry).mtimeMs < this.#started) return
    try {
      await this.#lookAt(directory)
    } catch (error) {
      this.#config.logger.error(error instanceof Error ? error.message : String(error))
      process.exitCode = 1
    }
  }

  async #lookAt(directory: string): Promise<void> {
    const { logger } = this.#config
    const project = await this.#project
    if (!project) return
    let report: Report
    try {
      report = await check(project.folder, await this.#optionsFor(project.folder, directory))
    } catch (error) {
      if (!(error instanceof UsageError || error instanceof FolderError)) throw error
      // What can't be looked at is no reason to fail a build.
      logger.warn(`wardoscope: ${error.message}`)
      return
    }
    const text = renderReport(report, styleFor(process.stdout, true)).trimEnd()
    if (report.verdict === 'clear') logger.info(`\n${text}\n`)
    else if (this.#options.hold) throw new Error(`The build is held.\n\n${text}\n`)
    else logger.warn(`\n${text}\n`)
  }

  async #optionsFor(folder: DiskFolder, directory: string): Promise<CheckOptions> {
    const { site, host, hold: _, ...given } = this.#options
    const { options: configured } = await projectOptions(this.#config.root, { site, host })
    return {
      ...configured,
      ...given,
      build: {
        folder: await DiskFolder.open(join(folder.origin.root, directory), directory),
        path: directory,
      },
      readings: readingsOf(this.#config),
      environment: environmentOf(this.#config),
      reader: parallelReader({ cache: null, version }),
    }
  }
}
