import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { useEffect, type ReactNode } from 'react'
import { useLocation } from 'react-router'
import { lazyPart } from '../lazyPart.tsx'
import { useSignedIn } from '../accounts/useSignedIn.tsx'
import { lastSite } from './lastSite.ts'
import { useSites } from './useSites.ts'

const SitesPlace = lazyPart(() => import('./SitesPlace.tsx'), 'SitesPlace')

/**
 * An address that names no site: the only one is shown, or for the address of a place the one that was shown last, or
 * all are there to choose from.
 */
export function Entry({ onSite }: { onSite: (site: string) => void }): ReactNode {
  const { account, instead } = useSignedIn()
  const { pathname, search } = useLocation()
  const sites = useSites(account !== null)
  // `/?sites` shows them all, one of them too: another can be added.
  const asked = new URLSearchParams(search).has('sites')
  const only = !asked && sites.data?.length === 1 ? sites.data[0] : undefined
  const last = pathname === '/' ? undefined : sites.data?.find((s) => s.id === lastSite())
  const chosen = account ? (only ?? last)?.id : undefined
  useEffect(() => {
    if (chosen !== undefined) onSite(chosen)
  }, [chosen, onSite])
  if (!account) return instead
  if (sites.error && !sites.data) return <p className="waiting">{problemWords(sites.error)}</p>
  if (!sites.data || chosen !== undefined) return <p className="waiting">{common.loading}</p>
  return <SitesPlace account={account} sites={sites.data} onSite={onSite} />
}
