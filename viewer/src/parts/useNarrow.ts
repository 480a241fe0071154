import { useSyncExternalStore } from 'react'

/** Whether the window has no more than so many CSS pixels. */
export function useNarrow(pixels: number): boolean {
  const query = `(max-width: ${pixels}px)`
  return useSyncExternalStore(
    (changed) => {
      const list = matchMedia(query)
      list.addEventListener('change', changed)
      return () => list.removeEventListener('change', changed)
    },
    () => matchMedia(query).matches,
  )
}
