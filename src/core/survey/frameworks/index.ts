import type { Framework } from './framework.ts'
import { vite } from './vite.ts'

/** Every framework known, the more particular before the more general. */
export const frameworks: readonly Framework[] = [vite]
