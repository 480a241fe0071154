fetch(`${process.env.SAILINGS_API}/v1/sailings`).then((answer) => answer.json())
import('./harbours.js').then(({ harbours }) => document.body.append(harbours.join(', ')))
