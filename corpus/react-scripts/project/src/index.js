import { createRoot } from 'react-dom/client'
import { sailings } from './api'
import ferry from './ferry.svg'

createRoot(document.getElementById('root')).render(<img src={ferry} alt="" />)
sailings().then((list) => console.info(list.length))
import('./harbours').then(({ default: harbours }) => console.info(harbours.join(', ')))
