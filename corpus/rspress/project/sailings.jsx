import { useEffect, useState } from 'react'

export default function Sailings() {
  const [sailings, setSailings] = useState([])
  useEffect(() => {
    fetch('https://api.skerryline.example/v1/sailings')
      .then((answer) => answer.json())
      .then(setSailings)
  }, [])
  return <ul>{sailings.map(({ id }) => <li key={id}>{id}</li>)}</ul>
}
