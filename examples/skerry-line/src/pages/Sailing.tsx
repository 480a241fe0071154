import { Link, useParams } from 'react-router'
import { nameOf, printed } from '../timetable.ts'

export function Sailing() {
  const { id } = useParams()
  const sailing = printed.find((each) => each.id === id)
  if (!sailing) return <h1>No such sailing today</h1>
  return (
    <section>
      <h1>
        {nameOf(sailing.from)} to {nameOf(sailing.to)}
      </h1>
      <p>
        Leaves {sailing.leaves}, arrives {sailing.arrives}. {sailing.free} places free.
      </p>
      <Link className="button" to="/tickets/new">
        Book a place
      </Link>
    </section>
  )
}
