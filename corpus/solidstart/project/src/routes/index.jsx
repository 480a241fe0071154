import { createSignal, onMount } from 'solid-js'
import ferry from '../ferry.svg'

export default function Home() {
  const [count, setCount] = createSignal(0)
  onMount(async () => {
    const answer = await fetch(`${import.meta.env.VITE_SAILINGS_API}/v1/sailings`)
    setCount((await answer.json()).length)
  })
  return (
    <main>
      <img src={ferry} alt="" />
      <p>{count()} sailings</p>
    </main>
  )
}
