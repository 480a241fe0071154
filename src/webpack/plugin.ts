import { existsSync } from 'node:fs'
import { join, relative, sep } from 'node:path'
import { Helper } from '../bundler/helper.ts'
import { held, jobOf, type WardoscopeOptions } from '../bundler/options.ts'
import type { Reading } from '../core/model/reading.ts'
import type { KnownReadings } from '../core/pipeline/options.ts'
import type { Compiler, Stats } from './compiler.ts'

const name = 'wardoscope'
const page = /\.html?$/

/**
 * Looks at what webpack 5 or Rspack wrote, as a host and a browser will. What is found is a warning of the compilation, or with `hold` an
 * error that fails it. Does nothing while developing, for servers, and where no page is written.
 */
export class WardoscopePlugin {
  readonly #options: WardoscopeOptions

  constructor(options: WardoscopeOptions = {}) {
    this.#options = options
  }

  /** Called by the bundler. */
  apply(compiler: Compiler): void {
    let helper: Helper | null = null
    // Before those that print what a compilation came to.
    compiler.hooks.done.tapPromise({ name, stage: -100 }, async (stats) => {
      if (stats.hasErrors() || !writesPages(compiler, stats)) return
      helper ??= new Helper((this.#options.checks?.length ?? 0) > 0)
      await this.#look(compiler, stats, helper)
      if (compiler.watchMode === true) return
      helper.end()
      helper = null
    })
  }

  async #look(compiler: Compiler, { compilation }: Stats, helper: Helper): Promise<void> {
    const isWatched = compiler.watchMode === true
    const { verdict, text } = await helper.look(
      jobOf(this.#options, {
        root: compiler.context,
        directory: relative(compiler.context, compiler.outputPath).split(sep).join('/') || '.',
        readings: readingsOf(compiler),
        environment: process.env,
        isWatched,
      }),
    )
    if (verdict === 'clear') compiler.getInfrastructureLogger(name).info(`\n${text}\n`)
    else if (verdict === 'held' && this.#options.hold && !isWatched) compilation.errors.push(held(text))
    else compilation.warnings.push(asWarning(verdict === null ? `wardoscope: ${text}` : text))
  }
}

/** Whether pages were written for browsers, and to the disk: a development server keeps its files in memory. */
function writesPages({ options, outputPath }: Compiler, { compilation }: Stats): boolean {
  const targets = [options.target].flat().filter((each) => typeof each === 'string')
  if (targets.some((target) => /^(?:async-)?node|^electron-(?:main|preload)/.test(target))) return false
  const pages = [...compilation.getAssets()].filter((asset) => page.test(asset.name))
  return pages.some((asset) => existsSync(join(outputPath, asset.name.split('?')[0] ?? '')))
}

function readingsOf({ options: { mode, output } }: Compiler): KnownReadings {
  const path = output.publicPath
  return {
    ...(mode !== undefined && { mode: known(mode) }),
    // A path that is worked out as the page runs, or has a hash in it, says nothing here.
    ...(typeof path === 'string' && path.startsWith('/') && !path.includes('[') && { basePath: known(path) }),
  }
}

function known(value: string): Reading<string> {
  return { value, from: { by: "the bundler's resolved configuration" }, certainty: 'stated' }
}

/** A warning as bundlers print it: its text, and no stack. */
function asWarning(text: string): Error {
  const warning = new Error(text)
  warning.stack = text
  return warning
}
