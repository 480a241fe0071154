import { relative, resolve } from 'node:path'
import type { Plugin, ResolvedConfig } from 'vite'
import { Helper } from '../bundler/helper.ts'
import type { WardoscopeOptions } from '../bundler/options.ts'
import { Checked } from './checked.ts'
import { buildsPages } from './resolved.ts'

/**
 * Looks at what the build wrote, with the resolved configuration in place of readings, and prints the result through the
 * bundler's logger. Does nothing while developing, in previews, and in builds of a server's program.
 */
export function wardoscope(options: WardoscopeOptions = {}): Plugin {
  let config: ResolvedConfig
  let checked: Checked | null = null
  let helper: Helper | null = null
  return {
    name: 'wardoscope',
    apply: 'build',
    enforce: 'post',
    // A framework that runs several builds shares one list of plugins among them.
    sharedDuringBuild: true,
    config() {
      // The sooner it is there, the less there is to wait for at the end.
      helper ??= new Helper((options.checks?.length ?? 0) > 0)
    },
    configResolved(resolved) {
      config = resolved
    },
    buildStart() {
      if (!config.build.lib && helper) checked ??= new Checked(config, options, helper)
    },
    writeBundle(output, bundle) {
      if (!checked) return
      // A server's program may write the pages when it is done.
      if (!buildsPages(config, this.environment)) {
        checked.waits()
        return
      }
      const directory = relative(config.root, resolve(config.root, output.dir ?? config.build.outDir))
      checked.wrote(directory, Object.keys(bundle))
    },
    closeBundle: {
      // After plugins that add to the folder when the bundle is done.
      order: 'post',
      sequential: true,
      async handler() {
        if (checked) await checked.look()
        else helper?.end()
      },
    },
  }
}
