import type { CheckOptions, KnownReadings } from '../core/pipeline/options.ts'
import type { Job } from './look.ts'

/** How a build is looked at. What is left out is taken from wardoscope.config.json, else from the build itself. */
export interface WardoscopeOptions
  extends Pick<CheckOptions, 'routes' | 'samples' | 'waivers' | 'limits' | 'checks' | 'holdOn'> {
  /** Where it will be served, or several addresses. */
  readonly site?: string | readonly string[]
  /** How the host answers: a preset by name, or a host of one's own. */
  readonly host?: string | NonNullable<CheckOptions['host']>
  /** Fails the build when something holds it. */
  readonly hold?: boolean
}

/** What a bundler knows of its own run. */
export interface BundlerRun {
  readonly root: string
  /** The folder that was written, below the root. */
  readonly directory: string
  readonly readings: KnownReadings
  readonly environment: NonNullable<CheckOptions['environment']>
  readonly isWatched: boolean
}

/** The look at what a bundler wrote, as somebody wants it. */
export function jobOf(
  { site, host, routes, samples, waivers, limits, checks, holdOn }: WardoscopeOptions,
  { root, directory, readings, environment, isWatched }: BundlerRun,
): Job {
  return {
    root,
    directory,
    site,
    host,
    options: {
      ...(routes ? { routes } : {}),
      ...(samples ? { samples } : {}),
      ...(waivers ? { waivers } : {}),
      ...(limits ? { limits } : {}),
      ...(checks ? { checks } : {}),
      ...(holdOn ? { holdOn } : {}),
      readings,
      environment,
    },
    isWatched,
    terminal: { isTTY: process.stdout.isTTY === true, columns: process.stdout.columns },
  }
}

/** Bundlers print the stack of an error: there is none that would help. */
export function held(text: string): Error {
  const error = new Error(`The build is held.\n\n${text}\n`)
  error.stack = error.message
  return error
}
