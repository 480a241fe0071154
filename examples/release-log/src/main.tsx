import { createRoot } from 'react-dom/client'
import '../../../viewer/src/style/index.css'
import './log.css'
import { ReleaseLog } from './ReleaseLog.tsx'

const place = document.getElementById('log')
if (place) createRoot(place).render(<ReleaseLog />)
