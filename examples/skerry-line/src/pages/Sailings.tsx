import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import { sailings } from '../api.ts'
import { nameOf, printed } from '../timetable.ts'
import './sailings.css'

export function Sailings() {
  const [today, setToday] = useState({ live: false, list: printed })
  useEffect(() => {
    void sailings().then(setToday)
  }, [])
  return (
    <section>
      <h1>Today's sailings</h1>
      {!today.live && <p className="hint">Shown from the printed timetable.</p>}
      <table className="sailings">
        <thead>
          <tr>
            <th scope="col">Leaves</th>
            <th scope="col">From</th>
            <th scope="col">To</th>
            <th scope="col">Arrives</th>
            <th scope="col">Places</th>
          </tr>
        </thead>
        <tbody>
          {today.list.map((sailing) => (
            <tr key={sailing.id}>
              <td>
                <Link to={`/sailings/${sailing.id}`}>{sailing.leaves}</Link>
              </td>
              <td>{nameOf(sailing.from)}</td>
              <td>{nameOf(sailing.to)}</td>
              <td>{sailing.arrives}</td>
              <td>{sailing.free === 0 ? 'full' : sailing.free}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}
