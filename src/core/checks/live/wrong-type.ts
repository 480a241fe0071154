import { defineCheck } from '../check.ts'
import { listed, named } from '../live-causes.ts'

/** A script or a style comes with a type that browsers refuse. */
export const liveWrongType = defineCheck({
  code: 'live/wrong-type',
  severity: 'blocker',
  title: 'Files come with a type that browsers refuse',
  keywords: ['Content-Type', 'octet-stream'],
  run: listed(
    (live) => live.wrongType,
    (first, all) => ({
      impact: `Browsers refuse ${named(all)}.`,
      cause: `${first.url} is sent with a wrong type. ${first.detail}`,
      steps: ['Let the host send these endings with their types, or upload them with the right ones.'],
    }),
  ),
})
