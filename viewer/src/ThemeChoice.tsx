import { useState } from 'react'
import { Choice, type Option } from './parts/Choice.tsx'

type Theme = 'system' | 'light' | 'dark'

const themes: readonly Option<Theme>[] = [
  { id: 'system', label: 'Auto' },
  { id: 'light', label: 'Light' },
  { id: 'dark', label: 'Dark' },
]

/** Light or dark, or as the reader's system has it. */
export function ThemeChoice() {
  const [theme, setTheme] = useState<Theme>('system')
  const choose = (next: Theme): void => {
    setTheme(next)
    if (next === 'system') delete document.documentElement.dataset.theme
    else document.documentElement.dataset.theme = next
  }
  return (
    <div className="theme">
      <Choice label="Light or dark" options={themes} value={theme} onChange={choose} />
    </div>
  )
}
