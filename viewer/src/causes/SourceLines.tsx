import type { SourcePlace } from '../../../src/core/model/report.ts'
import { ScrollText } from '../parts/ScrollText.tsx'
import { Where } from '../parts/Where.tsx'
import { plain } from '../parts/words.ts'

/** The lines of a source around the place, the one that is meant marked. */
export function SourceLines({ source }: { readonly source: SourcePlace }) {
  const lines = source.around?.lines ?? (source.excerpt === undefined ? [] : [source.excerpt])
  const from = source.around?.from ?? source.line
  return (
    <figure className="lines">
      <figcaption>
        <Where place={{ file: source.file, line: source.line, column: source.column }} />
      </figcaption>
      {lines.length > 0 ? (
        <ScrollText label={`Lines of ${plain(source.file)}`}>
          {lines.map((line, index) => {
            const number = from + index
            const meant = number === source.line
            return (
              <span key={number} className={meant ? 'line line-meant' : 'line'}>
                <span className="line-number" aria-hidden="true">
                  {number}
                </span>
                {meant ? <mark>{plain(line) || ' '}</mark> : plain(line) || ' '}
                {'\n'}
              </span>
            )
          })}
        </ScrollText>
      ) : null}
    </figure>
  )
}
