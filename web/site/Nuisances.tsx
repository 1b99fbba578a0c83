import { nuisances as msg } from '../../core/messages/en/site.ts'
import './site.css'
import { useQuery } from '@tanstack/react-query'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import type { NuisancesView } from '../../core/marks/views.ts'
import { request } from '../api/client.ts'

const READ_MS = 15_000
const SHOWN = 5

/** The detections that people marked as nuisances most, each with the way to tune it. */
export function Nuisances(): ReactNode {
  const { data } = useQuery({
    queryKey: ['nuisances'],
    queryFn: () => request<NuisancesView>('GET', '/nuisances'),
    refetchInterval: READ_MS
  })
  if (!data?.detections.length) return null
  return (
    <section className="site-today" aria-label={msg.title}>
      <h2>{msg.inDays(data.days)}</h2>
      <ul>
        {data.detections.slice(0, SHOWN).map((d) => (
          <li key={`${d.camera} ${d.detection}`}>
            <strong>{d.name}</strong>{' '}
            <span className="quiet">
              {d.cameraName}, {msg.aDay(d.nuisances / data.days, d.wanted)}
            </span>{' '}
            <Link
              to={`/bench/${encodeURIComponent(d.camera)}?back=true&detection=${encodeURIComponent(d.detection)}`}
            >
              {msg.tune}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  )
}
