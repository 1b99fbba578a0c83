import { roles } from '../core/messages/en/accounts.ts'
import { common } from '../core/messages/en/common.ts'
import { app as msg } from '../core/messages/en/app.ts'
import { Suspense, useEffect, type ReactNode } from 'react'
import { Navigate, Route, Routes } from 'react-router'
import { ApiError } from '../core/apiError.ts'
import { useSite } from './api/queries.ts'
import { useSignedIn } from './accounts/useSignedIn.tsx'
import { accountAt, type AccountView, type Role } from '../core/accounts/accounts.ts'
import { sitesPlace as sites } from '../core/messages/en/sites.ts'
import { rememberSite } from './sites/lastSite.ts'
import { PartBoundary, PlaceBoundary } from './shell/Boundary.tsx'
import { EmptyPlace } from './shell/EmptyPlace.tsx'
import { ServerNote } from './shell/ServerNote.tsx'
import { TopBar } from './shell/TopBar.tsx'
import { lazyPart } from './lazyPart.tsx'

const DevicesPlace = lazyPart(() => import('./devices/DevicesPlace.tsx'), 'DevicesPlace')
const ArmingPlace = lazyPart(() => import('./arming/ArmingPlace.tsx'), 'ArmingPlace')
const ActionsPlace = lazyPart(() => import('./actions/ActionsPlace.tsx'), 'ActionsPlace')
const WatchPlace = lazyPart(() => import('./watch/WatchPlace.tsx'), 'WatchPlace')
const ProvePlace = lazyPart(() => import('./prove/ProvePlace.tsx'), 'ProvePlace')
const WalkPart = lazyPart(() => import('./prove/walk/WalkPart.tsx'), 'WalkPart')
const SitePlace = lazyPart(() => import('./site/SitePlace.tsx'), 'SitePlace')
const HandoverPlace = lazyPart(() => import('./handover/HandoverPlace.tsx'), 'HandoverPlace')
const MailboxPlace = lazyPart(() => import('./mailbox/MailboxPlace.tsx'), 'MailboxPlace')

const BenchPlace = lazyPart(() => import('./bench/BenchPlace.tsx'), 'BenchPlace')

/** The code of the places, by the first part of their addresses within a site. */
export const codeOf: ReadonlyMap<string, { fetchCode: () => Promise<unknown> }> = new Map([
  ['site', SitePlace],
  ['devices', DevicesPlace],
  ['arming', ArmingPlace],
  ['actions', ActionsPlace],
  ['bench', BenchPlace],
  ['watch', WatchPlace],
  ['handover', HandoverPlace]
])

/** One site. */
export function App({ site }: { site: string }): ReactNode {
  const { account: signedIn, instead } = useSignedIn()
  const account = signedIn && accountAt(signedIn, site)
  useEffect(() => {
    if (account) rememberSite(site)
  }, [account, site])
  if (!signedIn) return instead
  return account ? <Shell account={account} /> : noSite
}

const noSite = (
  <main className="empty-place">
    <h1>{sites.noRoleHere}</h1>
    <p>{sites.askAnInstaller}</p>
    <p>
      <a href="/?sites">{sites.goToSites}</a>
    </p>
  </main>
)

function Shell({ account }: { account: AccountView & { role: Role } }): ReactNode {
  const { error } = useSite()
  if (error instanceof ApiError && error.status === 404) return noSite
  return (
    <div className="app">
      <PartBoundary>
        <TopBar account={account} />
      </PartBoundary>
      <PartBoundary>
        <ServerNote />
      </PartBoundary>
      <PlaceBoundary>
        <Suspense fallback={<p className="waiting">{common.loading}</p>}>
          {account.role === 'installer' ? (
            <InstallersPlaces />
          ) : (
            <WatchersPlaces role={account.role} />
          )}
        </Suspense>
      </PlaceBoundary>
    </div>
  )
}

const nowhere = <EmptyPlace name={msg.nothingHere} what={msg.noPageAtThis} />

function InstallersPlaces(): ReactNode {
  return (
    <Routes>
      <Route path="/" element={<Navigate to="/site" replace />} />
      <Route path="/site" element={<SitePlace />} />
      <Route path="/devices" element={<DevicesPlace />} />
      <Route path="/arming/:schedule?" element={<ArmingPlace />} />
      <Route path="/actions/:part?" element={<ActionsPlace />} />
      <Route path="/bench/:camera?" element={<BenchPlace />} />
      <Route path="/watch/:part?" element={<WatchPlace />} />
      <Route path="/prove" element={<ProvePlace />} />
      <Route path="/prove/walk" element={<WalkPart />} />
      <Route path="/mailbox/:mail?" element={<MailboxPlace />} />
      <Route path="/handover" element={<HandoverPlace role="installer" />} />
      <Route path="*" element={nowhere} />
    </Routes>
  )
}

/** Operators and viewers have few places; the server allows them no more either. */
function WatchersPlaces({ role }: { role: Role }): ReactNode {
  return (
    <Routes>
      <Route path="/" element={<Navigate to="/watch" replace />} />
      <Route path="/watch/:part?" element={<WatchPlace />} />
      {role === 'operator' && <Route path="/handover" element={<HandoverPlace role={role} />} />}
      <Route
        path="*"
        element={
          <EmptyPlace name={msg.noAccess} what={msg.yourRoleIsThis(roles[role])} on="watch" />
        }
      />
    </Routes>
  )
}
