import { createRoot } from 'react-dom/client'
import { readPayload } from './payload.ts'
import { ReportPage } from './ReportPage.tsx'
import './style/index.css'

const place = document.getElementById('page')
const payload = readPayload(document)
if (place && payload) createRoot(place).render(<ReportPage payload={payload} />)
else if (place) place.textContent = 'The data of this report is not whole. Make it again.'
