const base = 'http://localhost:8802'

export const sailing = (id) => fetch(`${base}/v1/sailings/${id}`)
