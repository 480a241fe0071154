import type { ReactNode, RefObject } from 'react'

/** A part that scrolls by itself, and that a keyboard reaches for that. */
export function ScrollArea({
  label,
  className,
  frame = null,
  children,
}: {
  readonly label: string
  readonly className: string
  readonly frame?: RefObject<HTMLDivElement | null> | null
  readonly children: ReactNode
}) {
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset is for forms
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached
    <div className={className} ref={frame} tabIndex={0} role="group" aria-label={label}>
      {children}
    </div>
  )
}
