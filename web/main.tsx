import './nonce.ts'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import '@fontsource-variable/atkinson-hyperlegible-next/index.css'
import '@fontsource-variable/atkinson-hyperlegible-mono/index.css'
import './styles.css'
import { benchOf } from './api/queries.ts'
import { loadBench } from './app.tsx'
import { Root } from './Root.tsx'

const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 2000 } } })

// The Bench is what is opened most: its camera and its code are on their way while the rest is still read.
const camera = /^\/s\/[^/]+\/bench\/([^/]+)/.exec(location.pathname)?.[1]
if (camera) {
  void loadBench()
  // What is wrong with it is said where it is shown.
  queries.query(benchOf(decodeURIComponent(camera))).catch(() => {})
}

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <Root />
    </QueryClientProvider>
  </StrictMode>
)
