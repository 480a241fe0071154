import type { Folder } from '../model/folder.ts'
import type { Report } from '../model/report.ts'
import { type EntryTemplate, entryTemplateOf, namingTemplate, withPage } from '../project/entry-template.ts'
import { passedOn, type Survey } from '../project/survey.ts'
import { open, type Target } from './open.ts'
import type { CheckOptions, KnownReadings } from './options.ts'

/** A folder that was opened and surveyed, and how its report names a page that a template stands for. */
interface Opened {
  readonly target: Target
  readonly naming: (report: Report) => Report
}

/** Opens and surveys a folder, with all that whoever asks knows better. */
export async function openForCheck(folder: Folder, options: CheckOptions): Promise<Opened> {
  const found = await open(folder, options.build ?? null, options)
  const template = found.build && (await entryTemplateOf(found.build))
  const survey = withTemplate(withKnown(found.survey, options.readings), template)
  const values = found.values.withProcess(options.environment ?? {}, survey.prefixes?.value ?? [], {
    read: new Set(survey.reads.map(({ name }) => name)),
    passedOn: passedOn(survey),
  })
  const build = found.build && template ? withPage(found.build, template) : found.build
  return {
    target: { ...found, survey, values, build },
    naming: (report) => (template ? namingTemplate(report, template) : report),
  }
}

/** Says that a template is taken for the page. */
function withTemplate(survey: Survey, template: EntryTemplate | null): Survey {
  if (template === null) return survey
  const remark = `There is no page here. ${template.template} is read as the entry page, which a server fills in and sends.`
  return { ...survey, remarks: [...survey.remarks, remark] }
}

/** Readings that are known for sure; one that says the same keeps the place where it is written. */
function withKnown(survey: Survey, known: KnownReadings = {}): Survey {
  const others = Object.entries(known).filter(
    ([key, reading]) =>
      JSON.stringify(survey[key as keyof KnownReadings]?.value) !== JSON.stringify(reading?.value),
  )
  return { ...survey, ...Object.fromEntries(others) }
}
