import { Links, Meta, Outlet, Scripts } from '@remix-run/react'

export default function Root() {
  return (
    <html lang="en">
      <head>
        <meta charSet="utf-8" />
        <Meta />
        <Links />
      </head>
      <body>
        <Outlet />
        <Scripts />
      </body>
    </html>
  )
}

export function HydrateFallback() {
  return <p>One moment</p>
}
