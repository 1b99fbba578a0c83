import { configure } from '@testing-library/react'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { App } from 'antd'
import type { ReactNode } from 'react'
import { enterSite } from '../api/here.ts'
import { MemoryRouter } from 'react-router'

// A busy machine may take longer than the second that is usual.
configure({ asyncUtilTimeout: 30_000 })

/** A part of the interface in what the whole application gives it: address, queries, messages and the site's clock. */
export function inApp(part: ReactNode, address = '/', timeZone = 'UTC'): ReactNode {
  enterSite('s')
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  client.setQueryDefaults(['site'], { staleTime: Infinity })
  client.setQueryData(['site'], { name: 'Site', timeZone, cameras: [] })
  return (
    <MemoryRouter initialEntries={[address]}>
      <QueryClientProvider client={client}>
        <App>{part}</App>
      </QueryClientProvider>
    </MemoryRouter>
  )
}
