import { createRoot } from 'react-dom/client'
import '../../../viewer/src/style/index.css'
import './desk.css'
import { Desk } from './Desk.tsx'

const place = document.getElementById('desk')
if (place) createRoot(place).render(<Desk />)
