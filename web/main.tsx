import './nonce.ts'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import '@fontsource-variable/atkinson-hyperlegible-next/index.css'
import '@fontsource-variable/atkinson-hyperlegible-mono/index.css'
import './styles.css'
import { mayPass } from '../core/apiError.ts'
import { openSession } from './accounts/useSession.ts'
import { here } from './api/here.ts'
import { benchOf, siteQuery } from './api/queries.ts'
import { codeOf } from './app.tsx'
import { Root, isPhone } from './Root.tsx'

const queries = new QueryClient({
  defaultOptions: {
    queries: { retry: (failures, error) => failures < 1 && mayPass(error), staleTime: 2000 }
  }
})

// What is shown first is asked for before React begins: a place comes up together with the bar above it. What is wrong
// with it is said where it is shown.
const [, place = 'site', part] =
  /^\/s\/[^/]+(?:\/([^/]+)(?:\/([^/]+))?)?/.exec(location.pathname) ?? []
const camera = place === 'bench' ? part : undefined
if (here() !== null) queries.query(siteQuery).catch(() => {})
if (camera) queries.query(benchOf(decodeURIComponent(camera))).catch(() => {})
if (!isPhone()) openSession(queries, Promise.resolve(codeOf.get(place)?.fetchCode()))

// Without a certificate that the browser trusts there is none; the page then works as before.
navigator.serviceWorker?.register('/sw.js').catch(() => {})

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <Root />
    </QueryClientProvider>
  </StrictMode>
)
