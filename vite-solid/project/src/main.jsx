import { createResource, lazy } from 'solid-js'
import { render } from 'solid-js/web'
import { sailings } from './api.js'
import ferry from './ferry.svg'

const Harbours = lazy(() => import('./Harbours.jsx'))

function App() {
  const [list] = createResource(sailings)
  return (
    <>
      <img src={ferry} alt="" />
      <p>{list()?.length} sailings</p>
      <Harbours />
    </>
  )
}

render(() => <App />, document.getElementById('app'))
