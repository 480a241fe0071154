import { type RefObject, useEffect, useRef, useState } from 'react'

/** The width there is for an element, followed as it changes; CSS pixels, 0 until it is known. */
export function useWidth(): [RefObject<HTMLElement | null>, number] {
  const frame = useRef<HTMLElement>(null)
  const [width, setWidth] = useState(0)
  useEffect(() => {
    if (!frame.current) return
    const observer = new ResizeObserver(([entry]) => setWidth(Math.floor(entry?.contentRect.width ?? 0)))
    observer.observe(frame.current)
    return () => observer.disconnect()
  }, [])
  return [frame, width]
}
