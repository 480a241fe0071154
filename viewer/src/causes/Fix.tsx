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
      {edits.map(({ file, line, write }) => (
        <CopyBlock
          key={`${file}:${line}`}
          title={<Where place={{ file, line }} />}
          what={`what to write in ${file}`}
          text={write}
        />
      ))}
      {texts.map(({ title, text }) => (
        <CopyBlock key={title} title={plain(title)} what={title} text={text} />
      ))}
    </>
  )
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
