import type { ResolvedConfig } from 'vite'
import type { Reading } from '../core/model/reading.ts'
import type { CheckOptions, KnownReadings } from '../core/pipeline/options.ts'

/** The part of an environment that tells whom it is built for; Vite has it since version 6. */
type Built = { readonly config: { readonly consumer?: string; readonly build?: { readonly ssr?: unknown } } }

/** Whether what is built is for browsers. */
export function buildsPages(config: ResolvedConfig, environment: Built | undefined): boolean {
  if (config.build.lib) return false
  if (environment?.config.consumer !== undefined) return environment.config.consumer === 'client'
  return !config.build.ssr
}

/** What Vite resolved, as readings that need no file to be read. */
export function readingsOf({ base, mode, server, envPrefix }: ResolvedConfig): KnownReadings {
  const prefixes = envPrefix === undefined ? ['VITE_'] : [envPrefix].flat()
  return {
    basePath: known(base),
    mode: known(mode),
    devProxy: known(Object.keys(server.proxy ?? {})),
    prefixes: known(prefixes),
  }
}

function known<T>(value: T): Reading<T> {
  return { value, from: { by: "Vite's resolved configuration" }, certainty: 'stated' }
}

/** The variables of the build: those of its environment files, which may be elsewhere, over those of the process. */
export function environmentOf({ env }: ResolvedConfig): NonNullable<CheckOptions['environment']> {
  const own = Object.entries(env).filter(([, value]) => typeof value === 'string')
  return { ...process.env, ...Object.fromEntries(own) }
}
