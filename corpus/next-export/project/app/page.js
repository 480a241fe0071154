import Link from 'next/link'
import { Count } from './count.js'

export default function Home() {
  return (
    <main>
      <img src="/crossings/mark.svg" alt="" />
      <Count />
      <Link href="/harbours">Harbours</Link>
    </main>
  )
}
