const stream = () => 'http://localhost:8813/events'

export const watch = (listener) => {
  const source = new EventSource(stream())
  source.addEventListener('message', listener)
}
