import { useParams } from 'react-router'
import { chart } from '../api.ts'
import { harbours } from '../timetable.ts'

export function Harbour() {
  const { slug } = useParams()
  const harbour = harbours.find((each) => each.slug === slug)
  if (!harbour) return <h1>No such harbour on the line</h1>
  return (
    <section>
      <h1>{harbour.name}</h1>
      <p>{harbour.about}</p>
      <p>Depth at the quay: {harbour.depth.toFixed(1)} m</p>
      <img alt="" width="640" height="240" src={`${chart.tiles}/${harbour.slug}.png?key=${chart.key}`} />
    </section>
  )
}
