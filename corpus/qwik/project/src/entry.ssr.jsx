import { renderToStream } from '@builder.io/qwik/server'
import { manifest } from '@qwik-client-manifest'
import Root from './root.jsx'

export default (options) => renderToStream(<Root />, { manifest, ...options, containerAttributes: { lang: 'en' } })
