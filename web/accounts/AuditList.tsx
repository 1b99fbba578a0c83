import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { auditList as msg } from '../../core/messages/en/accounts.ts'
import './accounts.css'
import { useInfiniteQuery } from '@tanstack/react-query'
import { Alert, Button } from 'antd'
import type { ReactNode } from 'react'
import type { AuditView } from '../../core/accounts/accounts.ts'
import { auditWords } from '../../core/accounts/auditWords.ts'
import { request } from '../api/client.ts'
import { useClock } from '../words/useClock.ts'

/** Sign-ins, and what accounts did, the newest first. */
export function AuditList(): ReactNode {
  const clock = useClock()
  const audit = useInfiniteQuery({
    queryKey: ['audit'],
    queryFn: ({ pageParam }) =>
      request<AuditView>('GET', `/api/audit${pageParam === null ? '' : `?before=${pageParam}`}`),
    initialPageParam: null as number | null,
    getNextPageParam: (last) => (last.more ? last.entries[last.entries.length - 1]!.id : undefined)
  })
  if (audit.error && !audit.data) return <Alert type="error" title={problemWords(audit.error)} />
  if (!audit.data) return <p className="quiet">{common.loading}</p>
  return (
    <div className="account-list audit-list">
      <table>
        <thead>
          <tr>
            <th>{msg.when}</th>
            <th>{common.who}</th>
            <th>{msg.what}</th>
            <th>{common.of}</th>
            <th>{msg.site}</th>
            <th>{common.from}</th>
          </tr>
        </thead>
        <tbody>
          {audit.data.pages
            .flatMap(({ entries }) => entries)
            .map((e) => (
              <tr key={e.id} className={e.status >= 400 ? 'refused' : ''}>
                <td className="figures">{clock.dateAndTime(e.at)}</td>
                <td>{e.username}</td>
                <td>{auditWords(e.what, e.status)}</td>
                <td className="quiet">{e.detail}</td>
                <td className="quiet">{e.site}</td>
                <td className="figures quiet">{e.address}</td>
              </tr>
            ))}
        </tbody>
      </table>
      {audit.hasNextPage && (
        <Button loading={audit.isFetchingNextPage} onClick={() => void audit.fetchNextPage()}>
          {msg.showEarlier}
        </Button>
      )}
    </div>
  )
}
