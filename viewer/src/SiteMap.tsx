import { useMemo } from 'react'
import type { Report } from '../../src/core/model/report.ts'
import { mapOf } from '../../src/core/report/map/draw.ts'
import { ScrollArea } from './parts/ScrollArea.tsx'
import { Section } from './parts/Section.tsx'

/** The site as its host serves it, and the way from what fails to the line that makes it. */
export function SiteMap({ report }: { readonly report: Report }) {
  const source = useMemo(() => `data:image/svg+xml,${encodeURIComponent(mapOf(report))}`, [report])
  return (
    <Section
      title="Map"
      about="What answers each route, and the way from what fails back to the line of the source."
    >
      <ScrollArea className="map-frame" label="Map">
        <img
          className="map"
          src={source}
          alt="A tree of the routes with what answers each, and a chain for each cause. The tables of causes and routes hold the same in words."
        />
      </ScrollArea>
    </Section>
  )
}
