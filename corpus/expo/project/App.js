import { useEffect, useState } from 'react'
import { Image, Text, View } from 'react-native'
import { sailings } from './api'
import ferry from './assets/ferry.png'

export function App() {
  const [list, setList] = useState([])
  useEffect(() => {
    sailings().then(setList, () => setList([]))
  }, [])
  return (
    <View>
      <Image source={ferry} style={{ width: 16, height: 16 }} />
      <Text>{list.length} sailings today</Text>
    </View>
  )
}
