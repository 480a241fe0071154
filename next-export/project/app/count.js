'use client'
import { useEffect, useState } from 'react'

export function Count() {
  const [count, setCount] = useState(0)
  useEffect(() => {
    fetch(`${process.env.NEXT_PUBLIC_SAILINGS_API}/v1/sailings`)
      .then((answer) => answer.json())
      .then((list) => setCount(list.length))
  }, [])
  return <p>{count} sailings</p>
}
