import { lazy, Suspense, useEffect, useState } from 'react'
import { createRoot } from 'react-dom/client'
import { sailings } from './api.js'
import ferry from './ferry.svg'
import './main.css'

const Harbours = lazy(() => import('./Harbours.jsx'))

function App() {
  const [list, setList] = useState([])
  useEffect(() => void sailings().then(setList, () => setList([])), [])
  return (
    <Suspense>
      <img src={ferry} alt="" />
      <p>{list.length} sailings</p>
      <Harbours />
    </Suspense>
  )
}

createRoot(document.getElementById('app')).render(<App />)
