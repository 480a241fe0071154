import { Sailing } from './Sailing.jsx'

export default { component: Sailing }

export const Short = { args: { from: 'Holm', to: 'Sandvar' } }
