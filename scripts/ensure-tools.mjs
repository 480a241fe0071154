// Programs that tests run against and no registry of packages for Node holds. Where one is missing, it is installed on
// Debian as root; elsewhere this says what to install, and what needs it is left out and named by the tests.
import { spawnSync } from 'node:child_process'
import { existsSync } from 'node:fs'

/** The program, and Debian's package that holds it. */
const tools = { nginx: 'nginx', apache2: 'apache2', chromium: 'chromium' }

const environment = {
  ...process.env,
  PATH: `${process.env.PATH}:/usr/sbin`,
  DEBIAN_FRONTEND: 'noninteractive',
}
const isThere = (program) =>
  spawnSync('sh', ['-c', `command -v ${program}`], { env: environment }).status === 0
const missing = Object.entries(tools).filter(([program]) => !isThere(program))
const packages = missing.map(([, name]) => name)

if (missing.length > 0 && process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')) {
  console.error(`installing ${packages.join(', ')}`)
  const apt = (...args) =>
    spawnSync('apt-get', args, { env: environment, stdio: ['ignore', 'ignore', 'inherit'] })
  apt('update')
  apt('install', '--yes', '--no-install-recommends', ...packages)
}
const still = missing.filter(([program]) => !isThere(program)).map(([program]) => program)
if (still.length > 0) console.error(`not installed, and not tested against: ${still.join(', ')}`)
