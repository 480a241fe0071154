import './theme.css'

// Each is loaded by itself, and the constants by two of them: so they come to lie in chunks of their own.
export const planted = {
  clientBase: () => import('./client-base.js'),
  template: () => import('./template.js'),
  port: () => import('./port.js'),
  default: () => import('./default.js'),
  nested: () => import('./nested.js'),
  classField: () => import('./class-field.js'),
  constants: () => import('./constants.js'),
  otherChunk: () => import('./other-chunk.js'),
  socket: () => import('./socket.js'),
  events: () => import('./events.js'),
  request: () => import('./request.js'),
  parts: () => import('./parts.js'),
}
