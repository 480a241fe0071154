import Layout from '@theme/Layout'
import React, { useEffect } from 'react'
import ferry from '../ferry.svg'

export default function Home() {
  useEffect(() => {
    fetch('https://api.skerryline.example/v1/sailings')
  }, [])
  return (
    <Layout title="Sailings">
      <img src={ferry} alt="" />
    </Layout>
  )
}
