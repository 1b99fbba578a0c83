import './nonce.ts'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import '@fontsource-variable/atkinson-hyperlegible-next/index.css'
import '@fontsource-variable/atkinson-hyperlegible-mono/index.css'
import './styles.css'
import { openSession } from './accounts/useSession.ts'
import { here } from './api/here.ts'
import { benchOf, siteQuery } from './api/queries.ts'
import { BenchPlace } from './app.tsx'
import { Root, isPhone } from './Root.tsx'

const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 2000 } } })

// What is shown first is asked for before React begins. The Bench is opened most: its camera and its code are on their
// way meanwhile, and it comes up together with the bar above it. What is wrong with them is said where they are shown.
const camera = /^\/s\/[^/]+\/bench\/([^/]+)/.exec(location.pathname)?.[1]
if (here() !== null) queries.query(siteQuery).catch(() => {})
if (camera) queries.query(benchOf(decodeURIComponent(camera))).catch(() => {})
if (!isPhone()) openSession(queries, camera ? BenchPlace.fetchCode() : Promise.resolve())

// Without a certificate that the browser trusts there is none; the page then works as before.
navigator.serviceWorker?.register('/sw.js').catch(() => {})

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <Root />
    </QueryClientProvider>
  </StrictMode>
)
