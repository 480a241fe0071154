import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { z } from 'zod'
import { formatNamed } from '../../core/report/formats/index.ts'
import { withDemoBuilds } from '../../node/demo-builds.ts'
import { startStandIn } from '../../reach/stand-in.ts'
import { styleFor, wrap } from '../../terminal/style.ts'
import { type ExitStatus, exit, type Streams } from '../streams.ts'
import { checkCommand } from './check.ts'
import { fixCommand } from './fix.ts'
import { reachCommand } from './reach.ts'

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
  return withDemoBuilds((directory) => demoIn(directory, color, streams))
}

async function demoIn(directory: string, color: boolean, streams: Streams): Promise<ExitStatus> {
  const { out } = streams
  const style = styleFor(out, color)
  for (const { name, about, site, host, routes } of await readPlan(directory)) {
    const path = join(directory, name)
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
  await demoReach(join(directory, 'sound'), color, streams)
  await demoFix(directory, color, streams)
  return exit.clear
}

/** The service of the demo site, played by a stand-in: once as it is set up while developing, once as it should be. */
async function demoReach(path: string, color: boolean, streams: Streams): Promise<void> {
  const { out } = streams
  const { colors } = styleFor(out, color)
  const site = 'https://skerryline.example/crossings/'
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
      unannounced: true as const,
    }
    await reachCommand(path, flags, streams).finally(service.close)
    out.write('\n\n')
  }
}

async function readPlan(directory: string): Promise<z.infer<typeof plan>> {
  return plan.parse(JSON.parse(await readFile(join(directory, 'demo.json'), 'utf8')))
}

/** What a program can correct in three of the faulty builds. Nothing is built: the demo's packages are not installed here. */
async function demoFix(directory: string, color: boolean, streams: Streams): Promise<void> {
  const { out } = streams
  const { colors } = styleFor(out, color)
  const site = 'https://skerryline.example/crossings/'
  const service = 'VITE_SAILINGS_API=https://api.skerryline.example'
  const plays = [
    ['wrong-base', []],
    ['endpoint-left', [service]],
    ['environment-absent', [service, 'VITE_CHART_KEY=chart-demo']],
  ] as const
  for (const [name, values] of plays) {
    const given = values.map((value) => ` --value ${value}`).join('')
    out.write(`${colors.inverse(` ${name} `)} What can be corrected.\n`)
    out.write(colors.dim(`$ wardoscope fix ${name} --site ${site} --no-build${given}`))
    out.write('\n\n')
    await fixCommand(
      join(directory, name),
      { site: [site], host: 'fallback', value: values, build: false, timeout: '600', cache: true, color },
      { ...streams, err: out },
    )
    out.write('\n')
  }
}
