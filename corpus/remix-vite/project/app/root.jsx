import { Links, Meta, Outlet, Scripts } from '@remix-run/react'

export function Layout({ children }) {
  return (
    <html lang="en">
      <head>
        <meta charSet="utf-8" />
        <Meta />
        <Links />
      </head>
      <body>
        {children}
        <Scripts />
      </body>
    </html>
  )
}

export default function Root() {
  return <Outlet />
}

export function HydrateFallback() {
  return <p>One moment</p>
}
