import { useQueries, useQuery } from '@tanstack/react-query'
import { Image } from 'antd'
import type { ReactNode } from 'react'
import type { AlarmView } from '../../core/api.ts'
import type { FoundTrigger, SearchView } from '../../core/watch/search.ts'
import { timeOf } from '../actions/words.ts'
import { request } from '../api/client.ts'

interface KeptFile {
  name: string
  type: string
}

/** Recordings and snapshots that a device keeps itself are not here. */
const FILED = ['recording', 'snapshots']
const MOST = 6

/** What is kept of an alarm: the pictures of its triggers' moments, its recordings and snapshots. */
export function AlarmEvidence({ alarm: a }: { alarm: AlarmView }): ReactNode {
  const found = useQuery({ queryKey: ['triggers of', a.id, a.triggers], queryFn: () => request<SearchView>('GET', `/api/triggers?alarm=${a.id}`) })
  const filed = a.deliveries.filter((d) => FILED.includes(d.kind) && d.state === 'sent').slice(0, MOST)
  const files = useQueries({ queries: filed.map((d) => ({ queryKey: ['files', d.id], queryFn: () => request<KeptFile[]>('GET', `/api/deliveries/${d.id}/files`), staleTime: Infinity })) })
  const triggers = found.data?.triggers.slice(0, MOST) ?? []
  if (!triggers.length) return null
  const kept = filed.flatMap((d, i) => (files[i].data ?? []).map((f) => ({ ...f, src: `/api/deliveries/${d.id}/files/${encodeURIComponent(f.name)}`, of: d.name })))
  return (
    <section className="alarm-evidence" aria-label="Evidence">
      <Image.PreviewGroup>
        <div className="evidence-pictures">
          {triggers.map((t) => (
            <Moment key={t.id} trigger={t} />
          ))}
          {kept.filter((f) => f.type.startsWith('image/')).map((f) => (
            <Image key={f.src} src={f.src} alt={`${f.of}, ${f.name}`} width={98} height={55} />
          ))}
        </div>
      </Image.PreviewGroup>
      {kept.filter((f) => f.type.startsWith('video/')).map((f) => (
        <video key={f.src} src={f.src} controls preload="metadata" aria-label={`${f.of}, ${f.name}`} />
      ))}
    </section>
  )
}

const Moment = ({ trigger: t }: { trigger: FoundTrigger }): ReactNode => <Image src={`/api/triggers/${t.id}/picture`} alt={`${t.name} at ${timeOf(t.at)}`} width={98} height={55} fallback="data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 98 55'%3E%3Crect width='98' height='55' fill='%2311161c'/%3E%3Ctext x='49' y='31' fill='%2398a3af' font-size='9' text-anchor='middle'%3ENo picture%3C/text%3E%3C/svg%3E" />
