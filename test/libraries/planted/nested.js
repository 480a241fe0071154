export const settings = { api: { sailings: { base: 'http://localhost:8805' }, version: 1 }, region: 'north' }

export const fares = () => fetch(`${settings.api.sailings.base}/v${settings.api.version}/fares`)
