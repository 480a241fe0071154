import { sailings } from './api.js'
import ferry from './ferry.svg'

const app = document.getElementById('app')
app.innerHTML = `<img src="${ferry}" alt="">`
sailings().then((list) => app.append(String(list.length)))
import('./harbours.js').then(({ harbours }) => app.append(harbours.join(', ')))
