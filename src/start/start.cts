// Starts a bundled program. Node spends longer compiling its parsers than a survey takes, so what was compiled is kept in the
// user's cache directory: by Node itself where it can, else here. The cache may be deleted at any time.
const fs: typeof import('node:fs') = require('node:fs')
const nodeModule: typeof import('node:module') = require('node:module')
const path: typeof import('node:path') = require('node:path')
const vm: typeof import('node:vm') = require('node:vm')

/**
 * Runs one file of `dist/program`.
 * @param use what it is run for: what one use compiles is not what another needs
 */
exports.start = (file: string, use: string): void => {
  const { enableCompileCache } = nodeModule as { enableCompileCache?: (directory?: string) => unknown }
  if (enableCompileCache) {
    enableCompileCache()
    require(file)
  } else runCached(file, use)
}

function runCached(file: string, use: string): void {
  const source = fs.readFileSync(file, 'utf8')
  const { mtimeMs, size } = fs.statSync(file)
  const key = `${use}-${size}-${Math.trunc(mtimeMs)}-${process.version}-${process.arch}`
  const cached = path.join(cacheDirectory(), `program-${key}.code`)
  const code = read(cached)
  const script = new vm.Script(nodeModule.wrap(source), {
    filename: file,
    ...(code ? { cachedData: code } : {}),
    importModuleDynamically: vm.constants.USE_MAIN_CONTEXT_DEFAULT_LOADER,
  })
  const own = { exports: {} }
  script.runInThisContext()(own.exports, require, own, file, path.dirname(file))
  // Functions are compiled when they are first called: at the end, those that a run needs are all there.
  if (!code || script.cachedDataRejected) process.once('exit', () => keep(cached, script.createCachedData()))
}

function cacheDirectory(): string {
  const { XDG_CACHE_HOME, LOCALAPPDATA, HOME, TEMP } = process.env
  return path.join(
    XDG_CACHE_HOME || LOCALAPPDATA || (HOME ? path.join(HOME, '.cache') : TEMP || '/tmp'),
    'wardoscope',
  )
}

function read(cached: string): Buffer | null {
  try {
    return fs.readFileSync(cached)
  } catch {
    return null
  }
}

/** Written under another name first, so that a run beside this one never reads half of it. A full disk is no failure. */
function keep(cached: string, code: Buffer): void {
  try {
    fs.mkdirSync(path.dirname(cached), { recursive: true })
    const fresh = `${cached}.${process.pid}`
    fs.writeFileSync(fresh, code)
    fs.renameSync(fresh, cached)
    // What an earlier version compiled is of no use.
    const own = path.basename(cached)
    const same = /^program-[a-z]+-/.exec(own)?.[0] ?? own
    for (const name of fs.readdirSync(path.dirname(cached))) {
      if (name.startsWith(same) && name !== own) {
        fs.rmSync(path.join(path.dirname(cached), name), { force: true })
      }
    }
  } catch {
    // The next run compiles again.
  }
}
