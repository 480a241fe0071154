import { counted } from '../../model/text.ts'
import { type Cause, defineCheck, type Evidence, rebuild } from '../check.ts'

/** A page names a file of the disk of whoever made it. */
export const onDisk = defineCheck({
  code: 'asset/on-disk',
  severity: 'blocker',
  title: "A file of the developer's disk is requested",
  keywords: ['file:///', 'C:\\', 'not allowed to load local resource', 'broken image'],
  run,
})

function run(evidence: Evidence): Cause[] {
  const { requested, sources } = evidence
  const [first] = requested.onDisk
  if (!first) return []
  const urls = [...new Set(requested.onDisk.map(({ reference }) => reference.raw))]
  const more = urls.length > 1 ? ` and ${counted(urls.length - 1, 'other file')}` : ''
  const source = sources.find(first.reference.raw)
  return [
    {
      key: 'disk',
      impact: `${counted(urls.length, 'file')} ${urls.length > 1 ? 'do' : 'does'} not arrive: no browser takes files from a disk for a page of a site.`,
      cause: `${first.file} asks for ${urls[0]}${more}, which is where ${urls.length > 1 ? 'they were' : 'it was'} on the machine of whoever wrote it.`,
      places: requested.onDisk.map(({ file, reference: { offset, length } }) => ({ file, offset, length })),
      source,
      fix: [
        `Put the ${urls.length > 1 ? 'files' : 'file'} into the site, and ${source ? `in ${source.file}, line ${source.line}, ` : ''}write the URL that ${urls.length > 1 ? 'they have' : 'it has'} there.`,
        rebuild(evidence),
      ],
    },
  ]
}
