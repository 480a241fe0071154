import { fares } from '@skerry/fares'
import ferry from './ferry.svg'

const app = document.getElementById('app')
app.innerHTML = `<img src="${ferry}" alt="">`
fares().then((list) => app.append(String(list.length)))
