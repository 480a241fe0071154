import { writeSync } from 'node:fs'
import type { ResolvedConfig } from 'vite'
import { type Helper, lookAtExit } from '../bundler/helper.ts'
import type { Job, Result } from '../bundler/look.ts'
import { held, jobOf, type WardoscopeOptions } from '../bundler/options.ts'
import { environmentOf, readingsOf } from './resolved.ts'

const page = /\.html?$/

/**
 * Projects of which this process has reported what was found. A framework may load its configuration for each of its builds, and the plugin
 * with it.
 */
const reported = sharedSet('wardoscope.reported')
/** Projects whose pages are waited for. */
const waited = sharedSet('wardoscope.waited')

function sharedSet(name: string): Set<string> {
  const shared = globalThis as { [key: symbol]: Set<string> | undefined }
  const known = shared[Symbol.for(name)] ?? new Set<string>()
  shared[Symbol.for(name)] = known
  return known
}

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

  /** What is built here writes no page itself. */
  waits(): void {
    this.#waits = true
  }

  wrote(directory: string, files: readonly string[]): void {
    if (files.some((file) => page.test(file))) this.#written.add(directory)
    // A framework writes its pages when the bundler is done: then its own folder is looked at.
    else this.waits()
  }

  /** Looks at every folder that has pages now. @throws {Error} when one is held and that fails the build. */
  async look(): Promise<void> {
    const directories = [...this.#written]
    this.#written.clear()
    for (const directory of directories) await this.#lookAt(directory)
    if (this.#isWatched) return
    if (directories.length > 0) {
      reported.add(this.#config.root)
      this.#helper.end()
    } else if (this.#waits) {
      this.#waits = false
      if (waited.has(this.#config.root)) return
      waited.add(this.#config.root)
      process.once('beforeExit', () => void this.#lookAtEnd())
      process.once('exit', () => this.#lookAtExit())
    }
  }

  /** The process is about to end by itself: what the framework published, when it is of this run. */
  async #lookAtEnd(): Promise<void> {
    const { lookAtPublished } = await import('../bundler/look.ts')
    const result = await lookAtPublished(this.#jobFor('.'), this.#started)
    // A process may seem to be at its end while something else works for it: then there is nothing yet.
    if (!result || reported.has(this.#config.root)) return
    reported.add(this.#config.root)
    this.#tellAtEnd(result)
    this.#helper.end()
  }

  /** Many frameworks end the process, which leaves no time for anything that is waited for. */
  #lookAtExit(): void {
    if (reported.has(this.#config.root) || (process.exitCode ?? 0) !== 0) return
    reported.add(this.#config.root)
    const result = lookAtExit(
      { ...this.#jobFor('.'), options: dataOf(this.#jobFor('.').options) },
      this.#started,
    )
    if (!result) return
    const { checks = [] } = this.#options
    const left =
      checks.length > 0
        ? `\n\nNot run: the checks of your own, since the framework ended the process. Run wardoscope after the build.`
        : ''
    this.#tellAtEnd({ ...result, text: result.text + left })
  }

  /** At the end nobody is there to catch an error. */
  #tellAtEnd({ verdict, text }: Result): void {
    const isHeld = verdict === 'held' && this.#options.hold === true
    const said = verdict === null ? `wardoscope: ${text}` : isHeld ? held(text).message : `\n${text}`
    writeSync(isHeld ? 2 : 1, `${said}\n`)
    if (isHeld) process.exitCode = 1
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

/** Checks of one's own are code, which passes to no other process. */
function dataOf({ checks: _, ...options }: Job['options']): Job['options'] {
  return options
}
