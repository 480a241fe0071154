import { mapOf } from '../map/draw.ts'
import type { ReportFormat } from './format.ts'

/** A picture of the site as its host serves it. */
export const map: ReportFormat = { name: 'map', extension: 'svg', render: mapOf }
