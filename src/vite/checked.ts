import { existsSync, statSync } from 'node:fs'
import { join } from 'node:path'
import type { ResolvedConfig } from 'vite'
import type { Helper } from '../bundler/helper.ts'
import type { Job } from '../bundler/look.ts'
import { held, jobOf, type WardoscopeOptions } from '../bundler/options.ts'
import { environmentOf, readingsOf } from './resolved.ts'

const page = /\.html?$/

/** One run of the bundler, and what it wrote. */
export class Checked {
  readonly #config: ResolvedConfig
  readonly #options: WardoscopeOptions
  readonly #helper: Helper
  readonly #started = Date.now()
  /** Directories with a page, below the project. */
  readonly #written = new Set<string>()
  readonly #isWatched: boolean
  #waits = false

  constructor(config: ResolvedConfig, options: WardoscopeOptions, helper: Helper) {
    this.#config = config
    this.#options = options
    this.#helper = helper
    this.#isWatched = config.build.watch != null
    helper.warm(this.#jobFor(config.build.outDir, false))
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
    if (this.#isWatched) return
    if (directories.length > 0) this.#helper.end()
    else if (this.#waits) {
      this.#waits = false
      process.once('beforeExit', () => void this.#lookAtEnd())
    }
  }

  /** The process is about to end: what the framework published, when it is of this run. */
  async #lookAtEnd(): Promise<void> {
    const { publishDirectoryOf } = await import('../bundler/look.ts')
    const directory = await publishDirectoryOf(this.#config.root)
    if (directory === null) return
    const entry = join(this.#config.root, directory, 'index.html')
    if (!existsSync(entry) || statSync(entry).mtimeMs < this.#started) return
    try {
      await this.#lookAt(directory)
    } catch (error) {
      this.#config.logger.error(error instanceof Error ? error.message : String(error))
      process.exitCode = 1
    }
    this.#helper.end()
  }

  async #lookAt(directory: string): Promise<void> {
    const { logger } = this.#config
    const { verdict, text } = await this.#helper.look(this.#jobFor(directory))
    if (verdict === null) logger.warn(`wardoscope: ${text}`)
    else if (verdict === 'clear') logger.info(`\n${text}\n`)
    else if (this.#options.hold && !this.#isWatched) throw held(text)
    else logger.warn(`\n${text}\n`)
  }

  #jobFor(directory: string, isWatched = this.#isWatched): Job {
    const config = this.#config
    return jobOf(this.#options, {
      root: config.root,
      directory,
      readings: readingsOf(config),
      environment: environmentOf(config),
      isWatched,
    })
  }
}
