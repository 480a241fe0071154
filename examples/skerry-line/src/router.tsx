import { createBrowserRouter } from 'react-router'
import { Frame } from './Frame.tsx'
import { Home } from './pages/Home.tsx'
import { NotFound } from './pages/NotFound.tsx'

/** Addresses follow the base path of the build, so the same code works at the root and below it. */
export const router = createBrowserRouter(
  [
    {
      path: '/',
      element: <Frame />,
      errorElement: <NotFound />,
      children: [
        { index: true, element: <Home /> },
        {
          path: 'sailings',
          lazy: async () => ({ Component: (await import('./pages/Sailings.tsx')).Sailings }),
        },
        {
          path: 'sailings/:id',
          lazy: async () => ({ Component: (await import('./pages/Sailing.tsx')).Sailing }),
        },
        {
          path: 'harbours/:slug',
          lazy: async () => ({ Component: (await import('./pages/Harbour.tsx')).Harbour }),
        },
        {
          path: 'tickets/new',
          lazy: async () => ({ Component: (await import('./pages/Ticket.tsx')).Ticket }),
        },
        { path: '*', element: <NotFound /> },
      ],
    },
  ],
  { basename: import.meta.env.BASE_URL },
)
