import { type Cause, defineCheck, type Evidence } from '../check.ts'

/** The project holds the output twice, and not the same. */
export const copiesDiffer = defineCheck({
  code: 'fresh/copies-differ',
  severity: 'caution',
  title: 'Two copies of the output differ',
  keywords: ['docs folder', 'old copy', 'stale', 'copy', 'two folders'],
  run,
})

function run({ otherCopies, folder }: Evidence): Cause[] {
  return otherCopies.map(({ directory, differs }) => ({
    key: directory,
    impact: `The site of another build, where ${directory} is what is published.`,
    cause: `${directory} holds the same site as ${folder.name}, and ${differs} is not the same in both: one of them is of another build.`,
    places: [{ file: differs, offset: null, length: 0 }],
    fix: [
      `Publish one of them: let the build write to ${directory}, or remove ${directory}.`,
      `Or copy ${folder.name} to ${directory} after every build.`,
    ],
  }))
}
