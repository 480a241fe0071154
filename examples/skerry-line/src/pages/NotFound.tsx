import { Link } from 'react-router'

export function NotFound() {
  return (
    <section>
      <h1>Nothing at this mooring</h1>
      <p>
        The page is not on the chart. <Link to="/">Back to the home harbour</Link>
      </p>
    </section>
  )
}
