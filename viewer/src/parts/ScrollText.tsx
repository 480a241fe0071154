import type { ReactNode } from 'react'

/** Text that scrolls sideways where it is too long, and that a keyboard reaches for that. */
export function ScrollText({ label, children }: { readonly label: string; readonly children: ReactNode }) {
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset is for forms
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached
    <pre tabIndex={0} role="group" aria-label={label}>
      {children}
    </pre>
  )
}
