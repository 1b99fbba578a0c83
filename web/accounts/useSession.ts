import {
  useQuery,
  useQueryClient,
  type QueryClient,
  type UseQueryResult
} from '@tanstack/react-query'
import { useEffect } from 'react'
import { accountAt, type AccountView, type Role } from '../../core/accounts/accounts.ts'
import { here } from '../api/here.ts'
import { ApiError } from '../../core/apiError.ts'
import { SIGNED_OUT, request } from '../api/client.ts'

const key = ['session']
const AGAIN_MS = 2000

const ask = (): Promise<AccountView | null> =>
  request<AccountView>('GET', '/api/session').catch((error: unknown) => {
    if (error instanceof ApiError && error.status === 401) return null
    throw error
  })

/** Asks who is signed in before anything is shown; known once what else the first show needs is there too. */
export function openSession(queries: QueryClient, needed: Promise<unknown>): void {
  const queryFn = async (): Promise<AccountView | null> =>
    (await Promise.all([ask(), needed.catch(() => {})]))[0]
  queries.query({ queryKey: key, queryFn, staleTime: Infinity }).catch(() => {})
}

/** Who is signed in; null: nobody. */
export const useSession = (): UseQueryResult<AccountView | null> =>
  useQuery({
    queryKey: key,
    queryFn: ask,
    staleTime: Infinity,
    // While the server cannot tell, it is asked again.
    refetchInterval: ({ state }) => (state.error ? AGAIN_MS : false)
  })

/** The account with its role at the site that is shown; null: it has none there, or nobody is signed in. */
export function useAccount(): (AccountView & { role: Role }) | null {
  const { data } = useSession()
  const site = here()
  return data && site !== null ? accountAt(data, site) : null
}

/** Somebody else is signed in, or nobody: what was read for the one before is forgotten. */
export function setSession(queries: QueryClient, account: AccountView | null): void {
  queries.setQueryData(key, account)
  queries.removeQueries({ predicate: ({ queryKey }) => queryKey[0] !== key[0] })
}

/** Signed out anywhere, or the session has ended: whatever is open asks who it is again. */
export function useSignedOut(): void {
  const queries = useQueryClient()
  useEffect(() => {
    let asking = false
    const out = (): void => {
      // Asked once at a time: an answer of 401 dispatches the event again.
      if (asking) return
      asking = true
      void request<AccountView>('GET', '/api/session')
        .then(
          (account) => queries.setQueryData(key, account),
          (error: unknown) => {
            if (error instanceof ApiError && error.status === 401) setSession(queries, null)
          }
        )
        .finally(() => (asking = false))
    }
    window.addEventListener(SIGNED_OUT, out)
    return () => window.removeEventListener(SIGNED_OUT, out)
  }, [queries])
}
