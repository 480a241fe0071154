import type { ReactNode } from 'react'

/** A part of the page under a heading. */
export function Section({
  title,
  about,
  children,
}: {
  readonly title: string
  readonly about?: ReactNode
  readonly children: ReactNode
}) {
  return (
    <section className="section" aria-label={title}>
      <h2>{title}</h2>
      {about ? <p className="about">{about}</p> : null}
      {children}
    </section>
  )
}
