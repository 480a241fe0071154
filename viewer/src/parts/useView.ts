import { useCallback, useState } from 'react'

/**
 * A part of the view that the address keeps, so that a link leads to it and a reload comes back to it: `#routes?search=tickets`. Kept for the part
 * that is shown; another part begins anew.
 * @param name its name in the address
 * @param usual what it is when the address says nothing, which the address then leaves out
 */
export function useView(name: string, usual: string): [string, (value: string) => void] {
  const [value, setValue] = useState(() => parameters().get(name) ?? usual)
  const set = useCallback(
    (next: string) => {
      setValue(next)
      const all = parameters()
      if (next === usual) all.delete(name)
      else all.set(name, next)
      const query = all.toString()
      history.replaceState(null, '', `#${partOf(location.hash)}${query === '' ? '' : `?${query}`}`)
    },
    [name, usual],
  )
  return [value, set]
}

/** The part of the report that an address names. */
export function partOf(hash: string): string {
  return hash.replace(/^#/, '').split('?')[0] ?? ''
}

function parameters(): URLSearchParams {
  return new URLSearchParams(location.hash.split('?')[1] ?? '')
}
