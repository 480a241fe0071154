// Loaded before a measured program: writes its peak memory, in kB, to the file named by PEAK_FILE.
const { writeFileSync } = require('node:fs')
const file = process.env.PEAK_FILE
if (file && require('node:worker_threads').isMainThread) {
  process.on('exit', () => writeFileSync(file, String(process.resourceUsage().maxRSS)))
}
