// Starts a bundled program. Node spends longer compiling its parsers than a survey takes, so what was compiled is kept in the
// user's cache directory: by Node itself where it can, else here. The cache may be deleted at any time. What is kept is run
// by the next start, so it is kept only where nobody but the user can write.
const fs: typeof import('node:fs') = require('node:fs')
const nodeModule: typeof import('node:module') = require('node:module')
const os: typeof import('node:os') = require('node:os')
const path: typeof import('node:path') = require('node:path')
const v8: typeof import('node:v8') = require('node:v8')
const vm: typeof import('node:vm') = require('node:vm')

/**
 * Runs one file of `dist/program`.
 * @param use what it is run for: what one use compiles is not what another needs; null to keep nothing of it
 */
exports.start = (file: string, use: string | null): void => {
  // Every processor reads already: code that waits for a thread to be optimised in runs slowly for longer.
  v8.setFlagsFromString('--no-concurrent-recompilation')
  const { enableCompileCache } = nodeModule as { enableCompileCache?: (directory?: string) => unknown }
  const kept = use === null ? null : privateDirectory()
  if (kept === null) require(file)
  else if (enableCompileCache) {
    // Without a name, Node takes a directory for temporary files that all users share.
    enableCompileCache(path.join(kept, 'compiled'))
    require(file)
  } else if (use !== null) runCached(file, use, kept)
}

function runCached(file: string, use: string, kept: string): void {
  const source = fs.readFileSync(file, 'utf8')
  const { mtimeMs, size } = fs.statSync(file)
  const key = `${use}-${size}-${Math.trunc(mtimeMs)}-${process.version}-${process.arch}`
  const cached = path.join(kept, `program-${key}.code`)
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

/** A directory below the user's own that nobody else can write, made if need be; null when there is none. */
function privateDirectory(): string | null {
  try {
    const home = fs.realpathSync(os.homedir())
    const { XDG_CACHE_HOME, LOCALAPPDATA } = process.env
    const wanted = path.join(XDG_CACHE_HOME || LOCALAPPDATA || path.join(home, '.cache'), 'wardoscope')
    if (!wanted.startsWith(home + path.sep) && !wanted.startsWith(os.homedir() + path.sep)) return null
    fs.mkdirSync(wanted, { recursive: true, mode: 0o700 })
    const real = fs.realpathSync(wanted)
    if (!real.startsWith(home + path.sep)) return null
    for (let at = real; ; at = path.dirname(at)) {
      if (!isOwn(at)) return null
      if (at === home) return real
    }
  } catch {
    return null
  }
}

/** Whether a file or directory is the user's, and nobody else can write it. Windows keeps that in lists that Node does not show. */
function isOwn(at: string): boolean {
  if (!process.getuid) return true
  const { uid, mode } = fs.statSync(at)
  return uid === process.getuid() && (mode & 0o022) === 0
}

function read(cached: string): Buffer | null {
  try {
    return isOwn(cached) ? fs.readFileSync(cached) : null
  } catch {
    return null
  }
}

/** Written under another name first, so that a run beside this one never reads half of it. A full disk is no failure. */
function keep(cached: string, code: Buffer): void {
  try {
    fs.mkdirSync(path.dirname(cached), { recursive: true })
    const fresh = `${cached}.${process.pid}`
    fs.writeFileSync(fresh, code, { mode: 0o600 })
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
