import '@fontsource-variable/hanken-grotesk'
import '@fontsource-variable/martian-mono'
import { lazy, StrictMode, Suspense, type ReactNode } from 'react'
import { createRoot } from 'react-dom/client'
import { createBrowserRouter, matchPath, RouterProvider } from 'react-router'
import { mutate } from 'swr'
import { askEarly } from './api/client.ts'
import { base, screenPath } from './api/site-address.ts'
import { claimTab } from './editor/session/tab.ts'
import { SignInGate } from './people/sign-in-gate.tsx'
import { GlobalStyle } from './ui/theme.ts'
import { NotShown } from './ui/not-shown.tsx'
import { Waiting } from './ui/waiting.tsx'

/** Screens that opening a page does not need come when they are gone to. */
const PagesScreen = lazy(async () => ({ default: (await import('./pages/pages-screen.tsx')).PagesScreen }))
const MediaScreen = lazy(async () => ({ default: (await import('./media/media-screen.tsx')).MediaScreen }))
const LibraryScreen = lazy(async () => ({
  default: (await import('./library/library-screen.tsx')).LibraryScreen,
}))
const ReachScreen = lazy(async () => ({
  default: (await import('./reach-map/reach-screen.tsx')).ReachScreen,
}))
const keeping = () => import('./site/keeping-screens.ts')
const NavigationScreen = lazy(async () => ({ default: (await keeping()).NavigationScreen }))
const SettingsScreen = lazy(async () => ({ default: (await keeping()).SettingsScreen }))
const SitesScreen = lazy(async () => ({ default: (await keeping()).SitesScreen }))
const GulliesScreen = lazy(async () => ({ default: (await keeping()).GulliesScreen }))
const BinScreen = lazy(async () => ({ default: (await keeping()).BinScreen }))
const HelpScreen = lazy(async () => ({ default: (await keeping()).HelpScreen }))
const EditorScreen = lazy(async () => ({
  default: (await import('./editor/chrome/editor-screen.tsx')).EditorScreen,
}))

const PAGE_PATH = '/pages/:pageId'

const screens = (editor: ReactNode) => [
  { path: '/', element: <PagesScreen /> },
  { path: '/media-library', element: <MediaScreen /> },
  { path: '/library', element: <LibraryScreen /> },
  { path: '/reach-map', element: <ReachScreen /> },
  { path: '/gullies', element: <GulliesScreen /> },
  { path: '/navigation', element: <NavigationScreen /> },
  { path: '/settings', element: <SettingsScreen /> },
  { path: '/sites-and-people', element: <SitesScreen /> },
  { path: '/bin', element: <BinScreen /> },
  { path: '/help', element: <HelpScreen /> },
  { path: PAGE_PATH, element: editor },
  { path: '*', element: <Waiting title="Screen not found">Check the address, or go to Pages.</Waiting> },
]

const isPage = matchPath(PAGE_PATH, screenPath(window.location.pathname)) !== null

/** Edits are kept under the name of the tab, and taking it means asking the browser: not first when a page is there. */
if (isPage) void claimTab()

// What the server has named in the page is on its way, the editor's scripts among it; drawn with all of it, the screen is
// drawn once.
void Promise.all([
  askEarly((path, answer) => void mutate(path, answer, { revalidate: false })),
  isPage ? import('./editor/chrome/editor-screen.tsx') : undefined,
]).then(([, editor]) => {
  const children = screens(editor ? <editor.EditorScreen /> : <EditorScreen />)
  const router = createBrowserRouter([{ errorElement: <NotShown />, children }], {
    basename: base === '' ? '/' : base,
  })
  createRoot(document.getElementById('app')!).render(
    <StrictMode>
      <GlobalStyle />
      <SignInGate>
        <Suspense fallback={<Waiting title="One moment…" />}>
          <RouterProvider router={router} />
        </Suspense>
      </SignInGate>
    </StrictMode>,
  )
})
