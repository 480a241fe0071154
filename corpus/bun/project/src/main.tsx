import { useEffect, useState } from 'react'
import { createRoot } from 'react-dom/client'

const api = process.env.PUBLIC_SAILINGS_API

function Sailings() {
  const [sailings, setSailings] = useState<string[]>([])
  useEffect(() => {
    fetch(`${api}/v1/sailings`)
      .then((answer) => answer.json())
      .then(setSailings)
  }, [])
  return (
    <ul>
      {sailings.map((sailing) => (
        <li key={sailing}>{sailing}</li>
      ))}
    </ul>
  )
}

createRoot(document.getElementById('root')!).render(<Sailings />)
