const port = 8803
const host = 'http://localhost:'

export const harbours = () => fetch(host + port + '/v1/harbours')
