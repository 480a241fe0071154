// Plays the service of the demo site: node scripts/serve-stand-in.mjs <origin it allows>. Prints its address. Run after: npm run build
import { startStandIn } from '../dist/reach/stand-in.js'

const sailings = [{ id: 'hl-0710', from: 'Holm', to: 'Lunn', departs: '07:10' }]
const { address } = await startStandIn({
  origins: process.argv.slice(2),
  bodies: { '/v1/sailings': sailings },
})
console.log(address)
