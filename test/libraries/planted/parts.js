const server = { protocol: 'http', host: 'localhost', port: 8816 }

export const weather = () => fetch(`${server.protocol}://${server.host}:${server.port}/v1/weather`)
