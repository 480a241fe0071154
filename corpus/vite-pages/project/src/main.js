import { sailings } from './api.js'
import ferry from './ferry.svg'

document.body.append(Object.assign(new Image(), { src: ferry }))
sailings()
