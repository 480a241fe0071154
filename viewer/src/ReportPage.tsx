import { type ReactNode, useEffect, useState } from 'react'
import { Tab, TabList, TabPanel, Tabs } from 'react-aria-components'
import { flushSync } from 'react-dom'
import type { Payload } from '../../src/core/report/formats/html.ts'
import { Addresses } from './addresses/Addresses.tsx'
import { Causes } from './causes/Causes.tsx'
import { Changes } from './changes/Changes.tsx'
import { Everywhere } from './Everywhere.tsx'
import { Paper } from './parts/paper.ts'
import { useNarrow } from './parts/useNarrow.ts'
import { partOf } from './parts/useView.ts'
import { Rehearsal } from './rehearsal/Rehearsal.tsx'
import { SiteMap } from './SiteMap.tsx'
import { Survey } from './survey/Survey.tsx'
import { Assets } from './tables/Assets.tsx'
import { Endpoints } from './tables/Endpoints.tsx'
import { Projects } from './tables/Projects.tsx'
import { Routes } from './tables/Routes.tsx'
import { Variables } from './tables/Variables.tsx'
import { Verdict } from './Verdict.tsx'
import { Weight } from './weight/Weight.tsx'

interface Part {
  readonly id: string
  readonly title: string
  readonly count: number | null
  readonly content: ReactNode
}

/** One report. Its parts are tabs on a screen, and follow one another on paper. */
export function ReportPage({
  payload,
  embedded = false,
}: {
  readonly payload: Payload
  /** Whether it is a part of another page, which has a heading and an end of its own. */
  readonly embedded?: boolean
}) {
  const parts = partsOf(payload)
  const printing = usePrinting()
  const narrow = useNarrow(900)
  const Body = embedded ? 'div' : 'main'
  const [chosen, choose] = useHash(parts.map(({ id }) => id))
  // A part that is shown already is drawn anew, so that it takes its search from the address.
  const [searches, setSearches] = useState(0)
  const search = (part: string, words: string): void => {
    choose(part, `?${new URLSearchParams({ search: words })}`)
    setSearches(searches + 1)
  }
  return (
    <div className="report">
      <Verdict payload={payload} embedded={embedded} />
      {printing ? null : <Everywhere report={payload.report} onChoose={search} />}
      {printing ? (
        <Paper value={true}>
          <main>
            {parts.map(({ id, content }) => (
              <div key={id} className="printed">
                {content}
              </div>
            ))}
          </main>
        </Paper>
      ) : (
        <Tabs
          className="tabs"
          orientation={narrow ? 'horizontal' : 'vertical'}
          selectedKey={chosen}
          onSelectionChange={(key) => choose(String(key))}
          keyboardActivation="manual"
        >
          <nav aria-label="Parts of the report">
            <TabList aria-label="Parts of the report" className="tab-list">
              {parts.map(({ id, title, count }) => (
                <Tab key={id} id={id} className="tab">
                  {title}
                  {count === null ? null : <span className="count">{count.toLocaleString('en')}</span>}
                </Tab>
              ))}
            </TabList>
          </nav>
          <Body>
            {parts.map(({ id, content }) => (
              <TabPanel key={`${id} ${searches}`} id={id} className="tab-panel">
                {content}
              </TabPanel>
            ))}
          </Body>
        </Tabs>
      )}
      {embedded ? null : (
        <footer>Wardoscope {payload.version}. This page holds all it shows and requests nothing.</footer>
      )}
    </div>
  )
}

function partsOf(payload: Payload): readonly Part[] {
  const { report } = payload
  const { findings, sites, routes, environment, endpoints, assets, delivery, rehearsal, survey, comparison } =
    report
  const parts: (Part | null)[] = [
    { id: 'causes', title: 'Causes', count: findings.length, content: <Causes payload={payload} /> },
    report.projects
      ? {
          id: 'projects',
          title: 'Projects',
          count: report.projects.length,
          content: <Projects projects={report.projects} />,
        }
      : null,
    sites.length > 1 && !report.projects
      ? { id: 'addresses', title: 'Addresses', count: sites.length, content: <Addresses report={report} /> }
      : null,
    comparison
      ? { id: 'changes', title: 'Changes', count: null, content: <Changes comparison={comparison} /> }
      : null,
    { id: 'map', title: 'Map', count: null, content: <SiteMap report={report} /> },
    { id: 'routes', title: 'Routes', count: routes.length, content: <Routes report={report} /> },
    {
      id: 'variables',
      title: 'Variables',
      count: environment.length,
      content: <Variables report={report} />,
    },
    { id: 'endpoints', title: 'Endpoints', count: endpoints.length, content: <Endpoints report={report} /> },
    { id: 'assets', title: 'Assets', count: assets.requests, content: <Assets report={report} /> },
    delivery.firstVisit.length > 0
      ? { id: 'weight', title: 'Weight', count: null, content: <Weight report={report} /> }
      : null,
    rehearsal
      ? {
          id: 'rehearsal',
          title: 'Rehearsal',
          count: rehearsal.visits.length,
          content: <Rehearsal rehearsal={rehearsal} pictures={payload.pictures} />,
        }
      : null,
    { id: 'survey', title: 'Survey', count: null, content: <Survey survey={survey} report={report} /> },
  ]
  return parts.filter((part) => part !== null)
}

/** The part that the address names, so that a link can lead to it. */
function useHash(ids: readonly string[]): [string, (id: string, query?: string) => void] {
  const read = (): string => {
    const named = partOf(location.hash)
    return ids.includes(named) ? named : (ids[0] ?? '')
  }
  const [id, setId] = useState(read)
  useEffect(() => {
    const follow = (): void => setId(read())
    addEventListener('hashchange', follow)
    return () => removeEventListener('hashchange', follow)
  })
  const choose = (next: string, query = ''): void => {
    history.replaceState(null, '', `#${next}${query}`)
    setId(next)
  }
  return [id, choose]
}

function usePrinting(): boolean {
  const [printing, setPrinting] = useState(false)
  useEffect(() => {
    const start = (): void => flushSync(() => setPrinting(true))
    const end = (): void => setPrinting(false)
    addEventListener('beforeprint', start)
    addEventListener('afterprint', end)
    return () => {
      removeEventListener('beforeprint', start)
      removeEventListener('afterprint', end)
    }
  }, [])
  return printing
}
