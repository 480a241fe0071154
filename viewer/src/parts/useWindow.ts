import { type RefObject, useLayoutEffect, useRef, useState } from 'react'

/** Rows drawn above and below those that are seen, so that scrolling shows no gap. */
const spare = 12

/** The rows of a long list that are drawn, and the height of those that are not, in CSS pixels. */
export interface Window {
  readonly from: number
  readonly to: number
  readonly above: number
  readonly below: number
}

/**
 * Draws of a long list with rows of one height only those that are seen.
 * @param drawAll for paper, and for lists that need none of this
 */
export function useWindow(
  count: number,
  rowHeight: number,
  drawAll: boolean,
): [RefObject<HTMLDivElement | null>, Window] {
  const frame = useRef<HTMLDivElement>(null)
  const [seen, setSeen] = useState({ top: 0, height: 600 })
  useLayoutEffect(() => {
    const element = frame.current
    if (!element || drawAll) return
    const follow = (): void => {
      const { scrollTop: top, clientHeight: height } = element
      setSeen((before) => (before.top === top && before.height === height ? before : { top, height }))
    }
    follow()
    const observer = new ResizeObserver(follow)
    observer.observe(element)
    element.addEventListener('scroll', follow, { passive: true })
    return () => {
      observer.disconnect()
      element.removeEventListener('scroll', follow)
    }
  }, [drawAll])
  if (drawAll) return [frame, { from: 0, to: count, above: 0, below: 0 }]
  const first = Math.min(Math.floor(seen.top / rowHeight), Math.max(0, count - 1))
  const from = Math.max(0, first - spare)
  const to = Math.min(count, first + Math.ceil(seen.height / rowHeight) + spare)
  return [frame, { from, to, above: from * rowHeight, below: (count - to) * rowHeight }]
}
