import { render } from 'preact'
import { useEffect, useState } from 'preact/hooks'
import { sailings } from './api.js'
import ferry from './ferry.svg'

function App() {
  const [list, setList] = useState([])
  useEffect(() => {
    sailings().then(setList)
    import('./harbours.js').then(({ harbours }) => console.info(harbours.length))
  }, [])
  return (
    <main>
      <img src={ferry} alt="" />
      <p>{list.length} sailings</p>
    </main>
  )
}

render(<App />, document.getElementById('app'))
