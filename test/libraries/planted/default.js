const api = process.env.SAILINGS_API ?? 'http://localhost:8804'

export const tickets = () => fetch(`${api}/v1/tickets`)
