import { useMemo, useState } from 'react'
import { Button } from 'react-aria-components'
import type { Report } from '../../src/core/model/report.ts'
import { SearchBox } from './parts/SearchBox.tsx'
import { matches, plain, textOf } from './parts/words.ts'

interface Entry {
  readonly part: string
  readonly title: string
  /** What it is searched for in its own part. */
  readonly name: string
  readonly text: string
}

/** Of each part. */
const mostShown = 4

/** A search over all parts of the report; what is chosen opens its part, searched for the same. */
export function Everywhere({
  report,
  onChoose,
}: {
  readonly report: Report
  readonly onChoose: (part: string, search: string) => void
}) {
  const [search, setSearch] = useState('')
  const entries = useMemo(() => entriesOf(report), [report])
  const found = search.trim() === '' ? [] : entries.filter(({ text }) => matches(text, search.trim()))
  const parts = [...new Set(found.map(({ title }) => title))]
  const choose = (part: string, word: string): void => {
    setSearch('')
    onChoose(part, word)
  }
  return (
    <search className="everywhere">
      <SearchBox label="Search everything" value={search} onChange={setSearch} />
      <p className="unseen" role="status">
        {search.trim() === '' ? '' : `${found.length} found`}
      </p>
      {search.trim() === '' ? null : (
        <div className="everywhere-found">
          {found.length === 0 ? <p className="nothing">Nothing matches.</p> : null}
          {parts.map((title) => {
            const own = found.filter((each) => each.title === title)
            return (
              <section key={title} aria-label={`Found in ${title}`}>
                <h2>
                  {title} <span className="count">{own.length.toLocaleString('en')}</span>
                </h2>
                <ul className="bare">
                  {own.slice(0, mostShown).map(({ part, name }, index) => (
                    <li key={index}>
                      <Button className="opens" onPress={() => choose(part, name)}>
                        <bdi>{plain(name)}</bdi>
                      </Button>
                    </li>
                  ))}
                  {own.length > mostShown ? (
                    <li>
                      <Button className="opens" onPress={() => choose(own[0]?.part ?? '', search.trim())}>
                        all {own.length.toLocaleString('en')}
                      </Button>
                    </li>
                  ) : null}
                </ul>
              </section>
            )
          })}
        </div>
      )}
    </search>
  )
}

function entriesOf({ findings, routes, environment, endpoints, assets, delivery }: Report): Entry[] {
  return [
    ...findings.map((each) => ({
      part: 'causes',
      title: 'Causes',
      name: each.title,
      text: `${textOf(each)} ${each.fix.steps.join(' ')}`,
    })),
    ...routes.map(({ path, entryFile, answeredBy, status }) => ({
      part: 'routes',
      title: 'Routes',
      name: path,
      text: `${path} ${entryFile ?? ''} ${answeredBy} ${status}`,
    })),
    ...environment.map(({ name, state, definedIn, readAt }) => ({
      part: 'variables',
      title: 'Variables',
      name,
      text: [name, state, ...[...definedIn, ...readAt].map(({ file }) => file)].join(' '),
    })),
    ...endpoints.map(({ url, judgement, places }) => ({
      part: 'endpoints',
      title: 'Endpoints',
      name: url,
      text: [url, judgement, ...places.map(({ file }) => file)].join(' '),
    })),
    ...assets.list.map(({ path, file, status }) => ({
      part: 'assets',
      title: 'Assets',
      name: path,
      text: `${path} ${file ?? ''} ${status}`,
    })),
    ...delivery.largest.map(({ file }) => ({ part: 'weight', title: 'Weight', name: file, text: file })),
  ]
}
