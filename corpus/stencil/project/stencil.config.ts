import type { Config } from '@stencil/core'

export const config: Config = {
  namespace: 'skerry',
  env: { sailingsApi: 'https://api.skerryline.example' },
  outputTargets: [{ type: 'www', baseUrl: 'https://skerryline.example/crossings/', serviceWorker: null }],
}
