import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { sitesPlace as msg } from '../../core/messages/en/sites.ts'
import './sites.css'
import { Input } from 'antd'
import { useEffect, useRef, useState, type ReactNode } from 'react'
import { here, homeOf } from '../api/here.ts'
import { matching } from './matching.ts'
import { useSites } from './useSites.ts'

/** The other sites, to go to: each a page of its own. */
export function SiteSwitcher(): ReactNode {
  const sites = useSites()
  const [wanted, setWanted] = useState('')
  const list = useRef<HTMLUListElement>(null)
  const loaded = sites.data !== undefined
  // Where it opens is at the end of the page: who came by keyboard goes on in it.
  useEffect(() => {
    if (loaded) list.current?.querySelector<HTMLElement>('[aria-current]')?.focus()
  }, [loaded])
  if (sites.error && !sites.data) return <p className="quiet">{problemWords(sites.error)}</p>
  if (!sites.data) return <p className="quiet">{common.loading}</p>
  const shown = matching(sites.data, wanted)
  return (
    <div className="site-switcher">
      {sites.data.length > 8 && (
        <Input
          allowClear
          size="small"
          aria-label={msg.findASite}
          placeholder={msg.findASite}
          value={wanted}
          onChange={(e) => setWanted(e.target.value)}
          onPressEnter={() => shown[0] && location.assign(homeOf(shown[0].id))}
        />
      )}
      <ul ref={list}>
        {shown.map((site) => (
          <li key={site.id}>
            <a href={homeOf(site.id)} aria-current={site.id === here() ? 'page' : undefined}>
              {site.name}
            </a>
          </li>
        ))}
        {shown.length === 0 && <li className="quiet">{msg.noneMatches(wanted)}</li>}
      </ul>
      <a className="site-switcher-all" href="/?sites">
        {msg.allSites}
      </a>
    </div>
  )
}
