import { useState } from 'react'
import { Button } from 'react-aria-components'

/** Puts a text on the clipboard and says so. A page from disk may not use the clipboard's own interface. */
export function CopyButton({ text, what }: { readonly text: string; readonly what: string }) {
  const [state, setState] = useState<'ready' | 'copied' | 'failed'>('ready')
  const copy = async (): Promise<void> => {
    setState((await toClipboard(text)) ? 'copied' : 'failed')
    setTimeout(() => setState('ready'), 2_500)
  }
  const words = { ready: 'Copy', copied: 'Copied', failed: 'Select it and copy' }[state]
  return (
    <Button className="copy" onPress={copy} aria-label={`${words} ${state === 'ready' ? what : ''}`.trim()}>
      <span aria-live="polite">{words}</span>
    </Button>
  )
}

async function toClipboard(text: string): Promise<boolean> {
  try {
    await navigator.clipboard.writeText(text)
    return true
  } catch {
    return fromField(text)
  }
}

function fromField(text: string): boolean {
  const field = document.createElement('textarea')
  field.value = text
  field.className = 'unseen'
  document.body.append(field)
  field.select()
  const done = document.execCommand('copy')
  field.remove()
  return done
}
