import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import ferry from './ferry.svg'

export default function Home() {
  const [count, setCount] = useState(0)
  useEffect(() => {
    fetch(`${import.meta.env.VITE_SAILINGS_API}/v1/sailings`)
      .then((answer) => answer.json())
      .then((list) => setCount(list.length))
  }, [])
  return (
    <main>
      <img src={ferry} alt="" />
      <p>{count} sailings</p>
      <Link to="/harbours">Harbours</Link>
    </main>
  )
}
