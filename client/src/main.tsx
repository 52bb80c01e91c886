import '@fontsource-variable/atkinson-hyperlegible-next'
import '@fontsource-variable/literata'
import './styles.css'
import { QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { createBrowserRouter } from 'react-router'
import { App } from './app/App'
import { Broken } from './app/Broken'
import { makeQueries } from './shared/queries'
import { Routed } from './shared/Routed'
import { shareNonce } from './ui/nonce'

shareNonce()
// Kept for when there is no network, once everything else is here.
if (import.meta.env.PROD && 'serviceWorker' in navigator)
  window.addEventListener('load', () => setTimeout(() => void navigator.serviceWorker.register('/kept.js'), 2000))
const queries = makeQueries()
const router = createBrowserRouter([{ path: '*', element: <App />, errorElement: <Broken /> }])

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <Routed router={router} />
    </QueryClientProvider>
  </StrictMode>,
)
