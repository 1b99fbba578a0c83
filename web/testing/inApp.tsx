import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { App } from 'antd'
import type { ReactNode } from 'react'
import { MemoryRouter } from 'react-router'

/** A part of the interface in what the whole application gives it: address, queries and messages. */
export const inApp = (part: ReactNode, address = '/'): ReactNode => (
  <MemoryRouter initialEntries={[address]}>
    <QueryClientProvider
      client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}
    >
      <App>{part}</App>
    </QueryClientProvider>
  </MemoryRouter>
)
