import { component$ } from '@builder.io/qwik'
import { QwikCityProvider, RouterOutlet } from '@builder.io/qwik-city'

export default component$(() => (
  <QwikCityProvider>
    <head>
      <meta charSet="utf-8" />
      <title>Skerry Line</title>
    </head>
    <body lang="en">
      <RouterOutlet />
    </body>
  </QwikCityProvider>
))
