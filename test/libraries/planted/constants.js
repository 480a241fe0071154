export const notices = 'http://localhost:8807'
export const words = ['ferry', 'harbour', 'ticket']
