import axios from 'axios'

export const client = axios.create({ baseURL: 'http://localhost:8801', timeout: 5000 })
export const sailings = () => client.get('/v1/sailings')
