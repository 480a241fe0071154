const list = document.getElementById('notices')

import('./notices.js').then(({ notices }) => {
  list.append(...notices.map((text) => Object.assign(document.createElement('li'), { textContent: text })))
})
