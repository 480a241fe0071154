// What a check of any folder must keep to, however broken the folder is.

/**
 * Checks one folder; null when all is well, else what is not.
 * @param core the library: its source in tests, what is built elsewhere
 */
export async function faultIn(core, files) {
  const { check, MemoryFolder, parseSite, presetNamed } = core
  // Where a server's own configuration is at hand, it is the host.
  const isConfigured = Object.keys(files).some((file) => /(?:^|\/)(?:nginx\.conf|\.htaccess)$/.test(file))
  const host = isConfigured ? null : presetNamed('fallback')
  const options = { site: parseSite('https://skerryline.example/b/'), host }
  const started = performance.now()
  try {
    const report = await check(new MemoryFolder(files), options)
    const text = JSON.stringify({ ...report, timings: [] })
    const turned = Object.fromEntries(Object.entries(files).reverse())
    const again = await check(new MemoryFolder(turned), options)
    if (JSON.stringify({ ...again, timings: [] }) !== text)
      return 'another order of files gives another report'
    if (
      report.verdict === 'clear' &&
      report.findings.some(({ severity, waived }) => severity === 'blocker' && !waived)
    )
      return 'clear with a blocker'
    if (text.includes('s3cr3t-v4lue-12345678')) return 'a private value is shown'
  } catch (error) {
    const isSentence = ['UsageError', 'FolderError', 'SyntaxProblem'].includes(error.name)
    if (!isSentence) return `${error.name}: ${error.message}`.slice(0, 200)
    if (/\n/.test(error.message)) return 'an error of several lines'
  }
  return performance.now() - started > longest ? 'it takes too long' : null
}

/** A folder of a few kilobytes takes milliseconds; on a busy machine some more. */
const longest = 20_000
