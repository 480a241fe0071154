import { readFile } from 'node:fs/promises'
import { fileURLToPath } from 'node:url'
import { z } from 'zod'
import { FolderError } from '../../core/model/errors.ts'
import { formatNamed } from '../../core/report/formats/index.ts'
import { packageRoot } from '../../node/package-root.ts'
import { startStandIn } from '../../reach/stand-in.ts'
import { styleFor, wrap } from '../../terminal/style.ts'
import { type ExitStatus, exit, type Streams } from '../streams.ts'
import { checkCommand } from './check.ts'
import { reachCommand } from './reach.ts'

/** The builds made from the demo site, beside the compiled program. */
const demoFolder = new URL('dist/demo/', packageRoot)

const plan = z.array(
  z.object({
    name: z.string(),
    about: z.string(),
    site: z.string(),
    host: z.string(),
    routes: z.array(z.string()),
  }),
)

/** Checks the builds of the demo site, the sound one and the faulty ones, and shows what comes back. */
export async function demoCommand(color: boolean, streams: Streams): Promise<ExitStatus> {
  const { out } = streams
  const style = styleFor(out, color)
  for (const { name, about, site, host, routes } of await readPlan()) {
    const path = fileURLToPath(new URL(name, demoFolder))
    const options = ['--site', site, '--host', host, ...routes.flatMap((route) => ['--route', route])]
    out.write(
      `${style.colors.inverse(` ${name} `)} ${wrap(about, style.width - name.length - 3).join('\n')}\n`,
    )
    out.write(style.colors.dim(`$ wardoscope check ${name} ${options.join(' ')}`))
    out.write('\n\n')
    await checkCommand(
      path,
      {
        site: [site],
        host,
        route: routes,
        deliveries: [{ format: formatNamed('text'), out: null }],
        cache: true,
        color,
      },
      streams,
    )
    out.write('\n\n')
  }
  await demoReach(color, streams)
  return exit.clear
}

/** The service of the demo site, played by a stand-in: once as it is set up while developing, once as it should be. */
async function demoReach(color: boolean, streams: Streams): Promise<void> {
  const { out } = streams
  const { colors } = styleFor(out, color)
  const site = 'https://skerryline.example/crossings/'
  const path = fileURLToPath(new URL('sound', demoFolder))
  const plays = [
    ['The service still allows only the developer.', ['http://localhost:5173']],
    ['The service allows the site.', ['https://skerryline.example']],
  ] as const
  for (const [about, origins] of plays) {
    const service = await startStandIn({ origins, bodies: { '/v1/sailings': [] } })
    const instead = [`https://api.skerryline.example=${service.address}`]
    out.write(`${colors.inverse(' sound ')} ${about}\n`)
    out.write(colors.dim(`$ wardoscope reach sound --site ${site} --instead ${instead[0]}`))
    out.write('\n\n')
    const flags = {
      site: [site],
      instead,
      timeout: '10',
      deliveries: [{ format: formatNamed('text'), out: null }],
      cache: true,
      color,
    }
    await reachCommand(path, flags, streams).finally(service.close)
    out.write('\n\n')
  }
}

async function readPlan(): Promise<z.infer<typeof plan>> {
  try {
    return plan.parse(JSON.parse(await readFile(new URL('demo.json', demoFolder), 'utf8')))
  } catch {
    throw new FolderError(
      'missing',
      'The demo builds are not there. In a checkout, make them with: npm run demo:build',
    )
  }
}
