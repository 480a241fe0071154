import { Link, NavLink, Outlet } from 'react-router'

export function Frame() {
  return (
    <>
      <header className="mast">
        <Link to="/" className="brand">
          <img src={`${import.meta.env.BASE_URL}mark.svg`} alt="" width="40" height="40" />
          Skerry Line
        </Link>
        <nav aria-label="Main">
          <NavLink to="/sailings">Sailings</NavLink>
          <NavLink to="/harbours/holm">Harbours</NavLink>
          <NavLink to="/tickets/new" className="call">
            Tickets
          </NavLink>
        </nav>
      </header>
      <main>
        <Outlet />
      </main>
      <footer>
        <p>Skerry Line is made up, and so is the sea it sails on.</p>
        <p>
          <a href={`${import.meta.env.BASE_URL}timetable-winter.txt`}>Winter timetable as text</a>
        </p>
      </footer>
    </>
  )
}
