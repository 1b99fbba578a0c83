import { common } from '../../core/messages/en/common.ts'
import { sitesPlace as sites } from '../../core/messages/en/sites.ts'
import { places, topBar as msg } from '../../core/messages/en/shell.ts'
import './shell.css'
import { DownOutlined, MailOutlined, MoonOutlined, SunOutlined } from '@ant-design/icons'
import { Button, Popover, Tooltip } from 'antd'
import { Suspense, type ReactNode } from 'react'
import { NavLink } from 'react-router'
import { useSite } from '../api/queries.ts'
import { useTheme } from '../theme.tsx'
import type { AccountView, Role } from '../../core/accounts/accounts.ts'
import { FindButton } from '../find/FindButton.tsx'
import { UserMenu } from '../accounts/UserMenu.tsx'
import { PartBoundary } from './Boundary.tsx'
import { Mark } from './Mark.tsx'
import { ON_SITE, placesOf } from './places.ts'
import { lazyPart } from '../lazyPart.tsx'

const SiteSwitcher = lazyPart(() => import('../sites/SiteSwitcher.tsx'), 'SiteSwitcher')
/** What comes on its own may come a little later than the place that was opened. */
const Operators = lazyPart(() => import('../alarms/Operators.tsx'), 'Operators')

export function TopBar({ account }: { account: AccountView & { role: Role } }): ReactNode {
  const site = useSite()
  const { name, toggle } = useTheme()
  return (
    <header className="top-bar">
      <NavLink to="/" className="brand">
        <Mark /> {common.wardoptic}
      </NavLink>
      <Popover
        trigger="click"
        placement="bottomLeft"
        arrow={false}
        destroyOnHidden
        content={
          <Suspense fallback={common.loading}>
            <SiteSwitcher />
          </Suspense>
        }
      >
        <button
          type="button"
          className="site-switch"
          aria-label={sites.otherSite(site.data?.name ?? '')}
        >
          <span>{site.data?.name}</span> <DownOutlined aria-hidden />
        </button>
      </Popover>
      <nav aria-label={msg.places}>
        {placesOf(account.role).map((place) => (
          <NavLink
            key={place.path}
            to={place.path}
            className={ON_SITE.includes(place.path) ? 'place' : 'place at-a-desk'}
          >
            {place.name}
          </NavLink>
        ))}
        {account.role === 'installer' && (
          <NavLink to="/prove/walk" className="place on-a-phone">
            {places.walkTest}
          </NavLink>
        )}
      </nav>
      <span className="grow" />
      <FindButton role={account.role} />
      {/* Alarms that fail to show leave the way to all places. */}
      <PartBoundary>
        <Suspense fallback={null}>
          <Operators />
        </Suspense>
      </PartBoundary>
      {account.role === 'installer' && (
        <Tooltip title={msg.mailbox}>
          <NavLink to="/mailbox" className="place at-a-desk" aria-label={msg.mailbox}>
            <MailOutlined aria-hidden="true" />
          </NavLink>
        </Tooltip>
      )}
      <Tooltip title={name === 'day' ? msg.nightTheme : msg.dayTheme}>
        <Button
          type="text"
          aria-label={name === 'day' ? msg.useTheNightTheme : msg.useTheDayTheme}
          icon={name === 'day' ? <MoonOutlined aria-hidden /> : <SunOutlined aria-hidden />}
          onClick={toggle}
        />
      </Tooltip>
      <UserMenu account={account} />
    </header>
  )
}
