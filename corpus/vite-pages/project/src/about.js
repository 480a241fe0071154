import('./harbours.js').then(({ harbours }) => document.body.append(harbours.join(', ')))
