import { harbours } from './harbours.js'

export default () => <p>{harbours.join(', ')}</p>
