import { problemWords } from '../../core/messages/errorWords.ts'
import { Suspense, type ReactNode } from 'react'
import type { AccountView } from '../../core/accounts/accounts.ts'
import { lazyPart } from '../lazyPart.tsx'
import { useSession, useSignedOut } from './useSession.ts'

const SignIn = lazyPart(() => import('./SignIn.tsx'), 'SignIn')

/** Who is signed in, or what is shown until somebody is. */
export function useSignedIn():
  { account: AccountView; instead: null } | { account: null; instead: ReactNode } {
  const session = useSession()
  useSignedOut()
  if (session.data) return { account: session.data, instead: null }
  if (session.error && session.data === undefined)
    return { account: null, instead: <p className="waiting">{problemWords(session.error)}</p> }
  if (session.data === undefined) return { account: null, instead: null }
  return {
    account: null,
    instead: (
      <Suspense fallback={null}>
        <SignIn />
      </Suspense>
    )
  }
}
