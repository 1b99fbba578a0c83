import { MailOutlined, MoonOutlined, SunOutlined } from '@ant-design/icons'
import { Button, Tooltip } from 'antd'
import { Suspense, lazy, type ReactNode } from 'react'
import { NavLink } from 'react-router'
import { useSite } from '../api/queries.ts'
import { useTheme } from '../theme.tsx'
import { places } from './places.ts'

/** What comes on its own may come a little later than the place that was opened. */
const Operators = lazy(() => import('../alarms/Operators.tsx').then((m) => ({ default: m.Operators })))

/** The project's mark: an angle of view, and what is seen in it. */
const Mark = (): ReactNode => (
  <svg width="22" height="22" viewBox="0 0 24 24" aria-hidden="true">
    <path d="M3 5l9 14 9-14" fill="none" stroke="var(--accent)" strokeWidth="3.2" strokeLinecap="round" strokeLinejoin="round" />
    <circle cx="12" cy="5.5" r="2.5" fill="currentColor" />
  </svg>
)

export function TopBar(): ReactNode {
  const site = useSite()
  const { name, toggle } = useTheme()
  return (
    <header className="top-bar">
      <NavLink to="/site" className="brand">
        <Mark /> Wardoptic
      </NavLink>
      <span className="site-name">{site.data?.name}</span>
      <nav aria-label="Places">
        {places.map((place) => (
          <NavLink key={place.path} to={place.path} className="place">
            {place.name}
          </NavLink>
        ))}
      </nav>
      <span className="grow" />
      <Suspense fallback={null}>
        <Operators />
      </Suspense>
      <NavLink to="/mailbox" className="place">
        <MailOutlined aria-hidden="true" /> Mailbox
      </NavLink>
      <Tooltip title={name === 'day' ? 'Night theme' : 'Day theme'}>
        <Button type="text" aria-label={name === 'day' ? 'Use the night theme' : 'Use the day theme'} icon={name === 'day' ? <MoonOutlined /> : <SunOutlined />} onClick={toggle} />
      </Tooltip>
    </header>
  )
}
