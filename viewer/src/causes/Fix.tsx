import type { Fix as Change } from '../../../src/core/model/report.ts'
import { CopyButton } from '../parts/CopyButton.tsx'
import { ScrollText } from '../parts/ScrollText.tsx'
import { Where } from '../parts/Where.tsx'
import { plain } from '../parts/words.ts'

/** What to change: the steps, the text to write with its place, and texts to paste. */
export function Fix({ fix: { steps, edits, texts = [] } }: { readonly fix: Change }) {
  return (
    <>
      <ol className="steps">
        {steps.map((step) => (
          <li key={step}>{plain(step)}</li>
        ))}
      </ol>
      {edits
        .filter(({ moveTo }) => moveTo === undefined)
        .map(({ file, line, column, write, text, lines }) =>
          lines && text !== undefined ? (
            <Diff key={`${file}:${line}:${column}`} file={file} line={line} text={text} lines={lines} />
          ) : (
            <CopyBlock
              key={`${file}:${line}:${column}`}
              title={<Where place={{ file, line }} />}
              what={`what to write in ${file}`}
              text={write}
            />
          ),
        )}
      {texts.map(({ title, text }) => (
        <CopyBlock key={title} title={plain(title)} what={title} text={text} />
      ))}
    </>
  )
}

/** An edit as a small diff: the lines before and after it, and a button that copies those after. */
function Diff({
  file,
  line,
  text,
  lines,
}: {
  readonly file: string
  readonly line: number | null
  readonly text: string
  readonly lines: { readonly before: string; readonly after: string }
}) {
  const what = `the change in ${file}`
  return (
    <figure className="block">
      <figcaption>
        <span>
          <Where place={{ file, line }} />
        </span>
        <CopyButton text={lines.after === '' ? text : lines.after} what={what} />
      </figcaption>
      <ScrollText label={what}>
        {lines.before !== '' && <del>{marked('-', lines.before)}</del>}
        <ins>{marked('+', lines.after)}</ins>
      </ScrollText>
    </figure>
  )
}

function marked(sign: string, text: string): string {
  return `${text
    .split('\n')
    .map((each) => `${sign} ${plain(each)}`)
    .join('\n')}\n`
}

function CopyBlock({
  title,
  what,
  text,
}: {
  readonly title: React.ReactNode
  readonly what: string
  readonly text: string
}) {
  return (
    <figure className="block">
      <figcaption>
        <span>{title}</span>
        <CopyButton text={text} what={what} />
      </figcaption>
      <ScrollText label={what}>{text.split('\n').map(plain).join('\n')}</ScrollText>
    </figure>
  )
}
