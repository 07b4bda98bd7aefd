// Routes, theme and toasts. Every route is loaded when it is first asked for.

import { StyledEngineProvider, ThemeProvider } from '@mui/material'
import { SnackbarProvider } from 'notistack'
import { lazy, Suspense, useMemo } from 'react'
import { createBrowserRouter, Navigate, type RouteObject } from 'react-router'
import { RouterProvider } from 'react-router/dom'
import { NothingHere, PageFailed } from './frame/Boundary'
import { Look } from './kit/Look'
import { themeFor } from './kit/theme'
import { useMode } from './kit/mode'

const StartPage = lazy(() => import('./start/StartPage'))
const ProjectPage = lazy(() => import('./frame/ProjectPage'))
const BuildSheet = lazy(() => import('./sheet/BuildSheet'))
const CardsPage = lazy(() => import('./cards/CardsPage'))
const PartsPage = lazy(() => import('./parts/PartsPage'))
const PartPage = lazy(() => import('./parts/PartPage'))
const EditPage = lazy(() => import('./parts/edit/EditPage'))
const PastePage = lazy(() => import('./parts/paste/PastePage'))
const CopiesPage = lazy(() => import('./copies/CopiesPage'))
const KitPage = lazy(() => import('./kit/KitPage'))
const stages = {
  needs: lazy(() => import('./stages/needs/NeedsPage')),
  chip: lazy(() => import('./stages/chip/ChipPage')),
  pins: lazy(() => import('./stages/pins/PinsPage')),
  power: lazy(() => import('./stages/power/PowerPage')),
  build: lazy(() => import('./stages/build/BuildPage')),
}

const pages: RouteObject[] = [
  { path: '/', element: <StartPage /> },
  {
    path: '/projects/:id',
    element: <ProjectPage />,
    children: [
      { index: true, element: <Navigate to="needs" replace /> },
      ...Object.entries(stages).map(([path, Stage]) => ({ path, element: <Stage /> })),
      { path: 'sheet', element: <BuildSheet /> },
      { path: 'cards', element: <CardsPage /> },
    ],
  },
  { path: '/parts', element: <PartsPage /> },
  { path: '/parts/from-sheet', element: <PastePage /> },
  { path: '/parts/:id', element: <PartPage /> },
  { path: '/parts/:id/edit', element: <EditPage /> },
  { path: '/copies', element: <CopiesPage /> },
  { path: '/kit', element: <KitPage /> },
  { path: '*', element: <NothingHere /> },
]
const router = createBrowserRouter(pages.map((p) => ({ ...p, errorElement: <PageFailed /> })))

export const App = () => {
  const { mode } = useMode()
  const theme = useMemo(() => themeFor(mode), [mode])
  return (
    // First, so that the drawings’ style sheets say the last word.
    <StyledEngineProvider injectFirst>
      <ThemeProvider theme={theme}>
        <Look />
        <SnackbarProvider maxSnack={3} anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}>
          <Suspense
            fallback={
              <p className="faint" style={{ padding: 24 }}>
                Loading …
              </p>
            }
          >
            <RouterProvider router={router} />
          </Suspense>
        </SnackbarProvider>
      </ThemeProvider>
    </StyledEngineProvider>
  )
}
