import { type Folder, joinUp } from '../model/folder.ts'
import { describeOrigin } from '../model/reading.ts'
import { normaliseBase } from '../model/site.ts'
import { namedAddresses } from '../project/addresses.ts'
import { serverFileIn } from '../project/declared/server-files.ts'
import type { Survey } from '../project/survey.ts'

/** What is proposed for a question, and where it was found; null where nothing says. */
export interface Proposal {
  readonly value: string
  readonly from: string
}

/** What a project says of itself, for each question of a set-up. */
export interface Proposals {
  readonly site: Proposal | null
  readonly host: Proposal
  readonly routes: readonly string[]
}

/** Looks for the answers in the project: its address, how its host answers, and the routes of its sources. */
export async function proposalsFor(project: Folder, survey: Survey): Promise<Proposals> {
  return {
    site: await siteOf(project, survey),
    host: await hostOf(project, survey),
    routes: survey.routes.map(({ pattern }) => pattern),
  }
}

/** A whole address that something names; its path is the one that the build is made for. */
async function siteOf(project: Folder, survey: Survey): Promise<Proposal | null> {
  const found = await namedAddresses(project, { folder: null, path: '' }, survey)
  const whole = found.find(({ value }) => URL.canParse(value))
  if (!whole) return null
  const base = survey.basePath?.value
  const url = new URL(whole.value)
  if (typeof base === 'string' && url.pathname === '/') url.pathname = normaliseBase(base)
  return { value: url.href, from: describeOrigin(whole.from) }
}

async function hostOf(project: Folder, survey: Survey): Promise<Proposal> {
  const published = survey.publishDirectory?.value ?? null
  const server = await serverFileIn(project, published)
  if (server) return { value: `./${joinUp(server.file)}`, from: server.file }
  // Frameworks that write a page for each route need no host that answers in their place.
  if (survey.router?.value === 'history' && survey.routes.some(({ kind }) => kind === 'table'))
    return { value: 'fallback', from: describeOrigin(survey.router.from) }
  return { value: 'files', from: 'nothing says more' }
}
