fetch('https://api.skerryline.example/v1/sailings').then((answer) => answer.json())
import('./harbours.js').then(({ harbours }) => document.body.append(harbours.join(', ')))
