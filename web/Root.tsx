import { Suspense, useCallback, useState, type ReactNode } from 'react'
import { BrowserRouter } from 'react-router'
import { enterSite, here, homeOf } from './api/here.ts'
import { App } from './app.tsx'
import { Entry } from './sites/Entry.tsx'
import { lazyPart } from './lazyPart.tsx'
import { ThemeProvider } from './theme.tsx'

const PhonePlace = lazyPart(() => import('./phone/PhonePlace.tsx'), 'PhonePlace')

/** What a phone is let in for by a code: no site, and nobody who has signed in. */
export const isPhone = (): boolean => location.pathname === '/phone'

/** The site that the address names, or the way to one. */
export function Root(): ReactNode {
  const [site, setSite] = useState(here)
  const show = useCallback((id: string) => {
    const { pathname, search, hash } = location
    const rest = pathname === '/' ? '' : `${pathname}${search}${hash}`
    history.replaceState(null, '', homeOf(id) + rest)
    enterSite(id)
    setSite(id)
  }, [])
  if (isPhone())
    return (
      <ThemeProvider>
        <Suspense fallback={null}>
          <PhonePlace />
        </Suspense>
      </ThemeProvider>
    )
  // At once, not as a transition: a key pressed right after a click acts on what was clicked.
  return (
    <BrowserRouter key={site} useTransitions={false} basename={site === null ? '/' : homeOf(site)}>
      <ThemeProvider>{site === null ? <Entry onSite={show} /> : <App site={site} />}</ThemeProvider>
    </BrowserRouter>
  )
}
