import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { sessionList as msg } from '../../core/messages/en/accounts.ts'
import './accounts.css'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Alert, Button } from 'antd'
import { useState, type ReactNode } from 'react'
import type { SessionsView } from '../../core/accounts/accounts.ts'
import { request } from '../api/client.ts'
import { browserOf } from './browserOf.ts'
import { useClock } from '../words/useClock.ts'

/** Where one is signed in, and the end of each. */
export function SessionList(): ReactNode {
  const clock = useClock()
  const queries = useQueryClient()
  const sessions = useQuery({
    queryKey: ['sessions'],
    queryFn: () => request<SessionsView>('GET', '/api/session/all')
  })
  const [error, setError] = useState<string | null>(null)
  const end = async (path: string): Promise<void> => {
    try {
      await request('DELETE', path)
      setError(null)
      await queries.invalidateQueries({ queryKey: ['sessions'] })
    } catch (problem) {
      setError(problemWords(problem))
    }
  }
  if (sessions.error && !sessions.data)
    return <Alert type="error" title={problemWords(sessions.error)} />
  if (!sessions.data) return <p className="quiet">{common.loading}</p>
  const { current, sessions: all } = sessions.data
  return (
    <div className="account-list">
      <p className="quiet">{msg.aSessionEndsAfter30}</p>
      <table>
        <thead>
          <tr>
            <th>{msg.browser}</th>
            <th>{common.address}</th>
            <th>{msg.signedIn}</th>
            <th>{msg.lastUsed}</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {all.map((s) => (
            <tr key={s.id}>
              <td>
                {browserOf(s.agent)}
                {s.walk !== null && <small className="quiet"> {msg.walkTestOnly(s.walk)}</small>}
              </td>
              <td className="figures">{s.address}</td>
              <td className="figures">{clock.dateAndTime(s.createdAt)}</td>
              <td className="figures">{clock.dateAndTime(s.usedAt)}</td>
              <td>
                {s.id === current ? (
                  <span className="quiet">{msg.thisSession}</span>
                ) : (
                  <Button size="small" onClick={() => void end(`/api/session/all/${s.id}`)}>
                    {msg.signOut}
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {all.length > 1 && (
        <Button onClick={() => void end('/api/session/all')} className="account-end">
          {msg.endAllOthers}
        </Button>
      )}
      {error && <Alert type="error" title={error} />}
    </div>
  )
}
