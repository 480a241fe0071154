import { createContext, useContext } from 'react'

/** Whether the page is drawn for paper, where nothing scrolls, opens or follows the window. */
export const Paper = createContext(false)

export function useOnPaper(): boolean {
  return useContext(Paper)
}
