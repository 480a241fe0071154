export interface Harbour {
  slug: string
  name: string
  about: string
  depth: number
}

export interface Sailing {
  id: string
  from: string
  to: string
  leaves: string
  arrives: string
  free: number
}

export const harbours: readonly Harbour[] = [
  {
    slug: 'holm',
    name: 'Holm',
    about: 'The mother harbour: winter berths, a smokehouse and the only crane.',
    depth: 7.5,
  },
  {
    slug: 'outer-light',
    name: 'Outer Light',
    about: 'A landing below the lighthouse. No shelter in a north-westerly.',
    depth: 4.2,
  },
  {
    slug: 'sandvar',
    name: 'Sandvar',
    about: 'Long beaches and a pier on piles; cars by arrangement.',
    depth: 3.1,
  },
  {
    slug: 'kelp-bay',
    name: 'Kelp Bay',
    about: 'Two houses, many seals, and the best water of the line.',
    depth: 5.0,
  },
]

/** The printed timetable, shown while the live one can't be reached. */
export const printed: readonly Sailing[] = [
  { id: 'hl-0710', from: 'holm', to: 'outer-light', leaves: '07:10', arrives: '08:15', free: 31 },
  { id: 'hs-0650', from: 'holm', to: 'sandvar', leaves: '06:50', arrives: '07:40', free: 12 },
  { id: 'sk-0900', from: 'sandvar', to: 'kelp-bay', leaves: '09:00', arrives: '09:55', free: 4 },
  { id: 'hl-0940', from: 'holm', to: 'outer-light', leaves: '09:40', arrives: '10:45', free: 48 },
  { id: 'hs-1215', from: 'holm', to: 'sandvar', leaves: '12:15', arrives: '13:05', free: 0 },
]

export const nameOf = (slug: string): string =>
  harbours.find((harbour) => harbour.slug === slug)?.name ?? slug
