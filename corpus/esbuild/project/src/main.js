import ferry from './ferry.svg'

document.body.append(Object.assign(new Image(), { src: ferry }))
fetch('https://api.skerryline.example/v1/sailings').then((answer) => answer.json())
import('./harbours.js').then(({ harbours }) => document.body.append(harbours.join(', ')))
