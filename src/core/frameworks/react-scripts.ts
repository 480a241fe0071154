import { defineFramework } from './framework.ts'
import { middlewareIn } from './readings.ts'

const address = { variable: 'PUBLIC_URL', manifest: 'homepage' }

/** react-scripts. Checked against 5.0. In it, `.env.local` beats `.env.production`. */
export const reactScripts = defineFramework({
  name: 'react-scripts',
  title: 'react-scripts',
  over: ['vite', 'parcel'],
  markers: ['react-scripts'],
  shipsMaps: true,
  commands: ['react-scripts build'],
  environmentExpansion: 'older',
  environmentFiles: (mode) => ['.env', `.env.${mode}`, '.env.local', `.env.${mode}.local`],
  environmentObjects: ['process.env'],
  settings: {
    publishDirectory: { variable: 'BUILD_PATH', default: 'build' },
    basePath: { ...address, url: true, default: '/' },
    siteAddress: address,
    prefixes: ['REACT_APP_'],
  },
  // The manifest's proxy forwards whatever the development server has no file for.
  refine: async ({ manifest, text }) => {
    const setUp = await middlewareIn(text, ['src/setupProxy.js', 'src/setupProxy.ts'])
    const proxy = manifest?.text('proxy')
    const devProxy = setUp ?? (proxy ? { ...proxy, value: ['/'] } : null)
    return devProxy ? { devProxy } : {}
  },
  placeholders: /^%(?:PUBLIC_URL|NODE_ENV|REACT_APP_\w+)%$/,
  signs: { files: [/^asset-manifest\.json$/, /^static\/js\/main\.[\da-f]{8}\.js$/] },
  fixes: {
    setBase: (base) => `"homepage": "${base}",`,
    baseIn: 'manifest',
    publicUrl: { write: (path) => `\`\${process.env.PUBLIC_URL}/${path}\`` },
    environmentFile: '.env.production',
    noMaps: 'in .env.production, write  GENERATE_SOURCEMAP=false',
  },
})
