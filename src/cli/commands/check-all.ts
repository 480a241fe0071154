import { resolve } from 'node:path'
import { UsageError } from '../../core/model/errors.ts'
import { counted, printable } from '../../core/model/text.ts'
import { holds } from '../../core/pipeline/report.ts'
import { checkAllProjects } from '../../node/check-all.ts'
import { openPath } from '../../node/opening/locate.ts'
import { renderProjects } from '../../terminal/projects.ts'
import { renderShort } from '../../terminal/report.ts'
import { buildFirst } from '../build.ts'
import { deliver } from '../deliver.ts'
import { pathOptions } from '../options.ts'
import { inReview } from '../review.ts'
import { type ExitStatus, exit, type Streams } from '../streams.ts'
import type { CheckFlags } from './check.ts'

/** Options that are of one project, each with why it is not for all. */
const ofOne: readonly (readonly [flag: 'site' | 'folder' | 'project' | 'config' | 'record', why: string])[] =
  [
    ['site', 'each project has its own address: write it into its configuration'],
    ['folder', 'each project has its own build folder'],
    ['project', 'it means one of them'],
    ['config', 'each project has its own configuration'],
    ['record', 'a release record is of one project'],
  ]

/** May all front ends of a repository ship? */
export async function checkAllCommand(
  path: string,
  flags: CheckFlags,
  streams: Streams,
): Promise<ExitStatus> {
  for (const [flag, why] of ofOne)
    if (flags[flag] !== undefined) throw new UsageError(`--${flag} can't stand beside --all: ${why}.`)
  const { site: _site, folder: _folder, project: _project, config: _config, ...options } = pathOptions(flags)
  const { err } = streams
  const { projects, report: whole } = await checkAllProjects(path, {
    ...options,
    onProject: ({ directory }, number, of) => {
      if (err.isTTY === true)
        err.write(`\r\u001b[2K${number} of ${counted(of, 'project')}: ${printable(directory || '.')}`)
    },
    ...(flags.build === true && {
      before: async (project) => buildFirst(await openPath(project), null, streams),
    }),
  }).finally(() => {
    if (err.isTTY === true) err.write('\r\u001b[2K')
  })
  const report = await inReview(whole, resolve(path), flags)
  await deliver(report, flags.deliveries, streams, options, flags.color, (style) =>
    flags.quiet
      ? renderShort(report, (finding) => holds(finding, options.holdOn))
      : renderProjects(report, projects, style),
  )
  if (report.verdict === 'clear') return exit.clear
  return projects.some(({ report: own }) => own?.verdict === 'held') ? exit.held : exit.unseen
}
