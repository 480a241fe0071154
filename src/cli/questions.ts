import { presets } from '../core/host/presets.ts'
import { UsageError } from '../core/model/errors.ts'
import { parseSite } from '../core/model/site.ts'
import { counted } from '../core/model/text.ts'
import type { Answers } from '../core/setup/configuration-text.ts'
import type { Proposals } from '../core/setup/proposals.ts'

/** The prompts write where progress goes: standard output holds what is written. */
const context = { output: process.stderr }

/** Asks four questions at the most; null when the person leaves. */
export async function ask(proposals: Proposals, site: string | undefined): Promise<Answers | null> {
  const [{ default: input }, { default: select }] = await Promise.all([
    import('@inquirer/input'),
    import('@inquirer/select'),
  ])
  return unlessLeft(async () => ({
    site: site === undefined ? await askSite(input, proposals) : parseSite(site).address,
    host: await askHost(select, proposals),
    routes: await askRoutes(input, proposals),
    holdOn: await askHoldOn(select),
  }))
}

/** Whether the files are to be written. */
export async function confirmed(files: number): Promise<boolean> {
  const { default: confirm } = await import('@inquirer/confirm')
  const answer = await unlessLeft(() =>
    confirm(
      { message: `Write ${files === 1 ? 'this file' : `these ${counted(files, 'file')}`}?`, default: true },
      context,
    ),
  )
  return answer === true
}

type Input = typeof import('@inquirer/input').default
type Select = typeof import('@inquirer/select').default

async function askSite(input: Input, { site }: Proposals): Promise<string | null> {
  const found = site ? `${site.from} names it; empty` : 'empty'
  const text = await input(
    {
      message: `Where will it be served? (${found} when not known)`,
      ...(site && { default: site.value }),
      validate: (each) => each.trim() === '' || problemOf(each),
    },
    context,
  )
  return text.trim() === '' ? null : parseSite(text.trim()).address
}

/** The sentence that says why an address is none. */
function problemOf(text: string): true | string {
  try {
    parseSite(text.trim())
    return true
  } catch (error) {
    if (error instanceof UsageError) return error.message
    throw error
  }
}

const hosts: Readonly<Record<string, string>> = {
  files: 'sends files, and an error for every other path',
  fallback: 'answers unknown paths with the entry page',
  'error-page': 'answers unknown paths with 404.html and status 404',
  'clean-urls': 'lets .html be left out',
}

async function askHost(select: Select, { host }: Proposals): Promise<string | null> {
  const own = presets.some(({ name }) => name === host.value) ? [] : [host.value]
  const chosen = await select(
    {
      message: `How does its host answer? (${host.from})`,
      default: host.value,
      choices: [
        ...own.map((value) => ({ value, name: `as ${value} says` })),
        ...presets.map(({ name }) => ({ value: name, name: `${name}: ${hosts[name] ?? name}` })),
      ],
    },
    context,
  )
  return chosen
}

async function askRoutes(input: Input, { routes }: Proposals): Promise<string[]> {
  const found = routes.length > 0 ? `The sources name ${counted(routes.length, 'route')}. ` : ''
  const text = await input(
    { message: `${found}More that visitors open directly? (paths with commas between)` },
    context,
  )
  return text
    .split(',')
    .map((path) => path.trim())
    .filter((path) => path !== '')
    .map((path) => (path.startsWith('/') ? path : `/${path}`))
}

async function askHoldOn(select: Select): Promise<string[]> {
  return select<string[]>(
    {
      message: 'What keeps a build from shipping?',
      default: [],
      choices: [
        { value: [], name: 'blockers' },
        { value: ['caution'], name: 'blockers and cautions' },
        {
          value: ['caution', 'unused-waivers'],
          name: 'blockers, cautions, and waivers that cover nothing any more',
        },
      ],
    },
    context,
  )
}

/** Null where the person presses Ctrl-C. */
async function unlessLeft<T>(questions: () => Promise<T>): Promise<T | null> {
  try {
    return await questions()
  } catch (error) {
    if (error instanceof Error && error.name === 'ExitPromptError') return null
    throw error
  }
}
