import { todaysTriggers as msg } from '../../core/messages/en/site.ts'
import { timeOfDay } from '../../core/messages/format.ts'
import './site.css'
import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import type { SiteView } from '../../core/api.ts'
import { wallInstant, wallText } from '../../core/arming/zone.ts'
import type { CountsView, SearchView } from '../../core/watch/search.ts'
import { request } from '../api/client.ts'
import { useMinute } from '../now.ts'

const READ_MS = 5000
const SHOWN = 5

/** What has triggered since midnight at the site, the newest first. */
export function TodaysTriggers({ site }: { site: SiteView }): ReactNode {
  const now = useMinute()
  const midnight =
    wallInstant(`${wallText(now, site.timeZone).slice(0, 10)}T00:00`, site.timeZone) ?? 0
  const found = useQuery({
    queryKey: ['today', midnight],
    queryFn: () => request<SearchView>('GET', `/triggers?from=${midnight}`),
    refetchInterval: READ_MS
  })
  const counts = useQuery({
    queryKey: ['today', 'counts', midnight],
    queryFn: () => request<CountsView>('GET', `/triggers/counts?from=${midnight}`),
    refetchInterval: READ_MS
  })
  const total = counts.data?.total ?? 0
  if (!found.data) return null
  return (
    <section className="site-today" aria-label={msg.todaysTriggers}>
      <h2>
        {total === 0 ? msg.noTriggerToday : msg.today(total)}
        {total > 0 && <Link to={`/watch/search?from=${midnight}`}>{msg.showAll}</Link>}
      </h2>
      <ul>
        {found.data.triggers.slice(0, SHOWN).map((t) => (
          <li key={t.id}>
            <Link to={t.alarm === null ? '/watch' : `/watch?alarm=${t.alarm}`}>
              <span className="figures">{timeOfDay(t.at, site.timeZone)}</span> {t.name}
            </Link>{' '}
            <span className="quiet">
              {site.cameras.find((c) => c.id === t.camera)?.name}
              {t.way && `, ${t.way}`}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}
