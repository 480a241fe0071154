import { plain } from './words.ts'

interface Place {
  readonly file: string
  readonly line?: number | null
  readonly column?: number | null
}

/** A file with its line; the directory steps back so that the name is found first. */
export function Where({ place: { file, line, column } }: { readonly place: Place }) {
  const slash = file.lastIndexOf('/') + 1
  return (
    <span className="where">
      <span className="where-directory">{plain(file.slice(0, slash))}</span>
      <bdi>{plain(file.slice(slash))}</bdi>
      {line ? <span className="where-line">{`:${line}${column ? `:${column}` : ''}`}</span> : null}
    </span>
  )
}
