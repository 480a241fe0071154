import { printed, type Sailing } from './timetable.ts'

/** Today's sailings; when the service can't be reached, the printed timetable, marked as such. */
export async function sailings(): Promise<{ live: boolean; list: readonly Sailing[] }> {
  try {
    const answer = await fetch(`${import.meta.env.VITE_SAILINGS_API}/v1/sailings`)
    if (!answer.ok) throw new Error(`The sailings service answered ${answer.status}`)
    return { live: true, list: (await answer.json()) as Sailing[] }
  } catch {
    return { live: false, list: printed }
  }
}

/** Books a place. Throws when the service doesn't take it. */
export async function book(sailing: string, places: number): Promise<void> {
  const answer = await fetch(`${import.meta.env.VITE_SAILINGS_API}/v1/tickets`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ sailing, places }),
  })
  if (!answer.ok) throw new Error(`The ticket office answered ${answer.status}`)
}

/** What a chart of one harbour is asked with. */
export const chart = {
  key: import.meta.env.VITE_CHART_KEY,
  tiles: 'https://charts.skerryline.example/tiles',
}
