import { Link } from 'react-router'
import chartUrl from '../assets/crossings-chart.svg'
import { harbours } from '../timetable.ts'

export function Home() {
  return (
    <>
      <section className="lead">
        <div>
          <h1>Out to the islands, every day of the year</h1>
          <p>Four harbours, three crossings, one small white ship. Bring a jacket.</p>
          <p>
            <Link to="/sailings" className="button">
              See today's sailings
            </Link>
          </p>
        </div>
        <img src={chartUrl} alt="The four harbours and the crossings between them" />
      </section>
      <section className="cards" aria-label="Harbours">
        {harbours.map((harbour) => (
          <Link key={harbour.slug} to={`/harbours/${harbour.slug}`} className="card">
            <h2>{harbour.name}</h2>
            <p>{harbour.about}</p>
          </Link>
        ))}
      </section>
    </>
  )
}
