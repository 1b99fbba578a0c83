import './accounts.css'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Alert, Button } from 'antd'
import { useState, type ReactNode } from 'react'
import type { SessionsView } from '../../core/accounts/accounts.ts'
import { dayAndTime } from '../actions/words.ts'
import { request } from '../api/client.ts'

/** The browser, as far as it tells. */
function browserOf(agent: string): string {
  const program = /Edg\//.test(agent)
    ? 'Edge'
    : /Firefox\//.test(agent)
      ? 'Firefox'
      : /Chrom(e|ium)\//.test(agent)
        ? 'Chrome or Chromium'
        : /Safari\//.test(agent)
          ? 'Safari'
          : null
  const system = /Android/.test(agent)
    ? 'Android'
    : /iPhone|iPad/.test(agent)
      ? 'iOS'
      : /Windows/.test(agent)
        ? 'Windows'
        : /Mac OS/.test(agent)
          ? 'macOS'
          : /Linux/.test(agent)
            ? 'Linux'
            : null
  return program
    ? `${program}${system ? ` on ${system}` : ''}`
    : agent.slice(0, 40) || 'Unknown program'
}

/** Where one is signed in, and the end of each. */
export function SessionList(): ReactNode {
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
      setError((problem as Error).message)
    }
  }
  if (sessions.error && !sessions.data) return <Alert type="error" title={sessions.error.message} />
  if (!sessions.data) return <p className="quiet">Loading…</p>
  const { current, sessions: all } = sessions.data
  return (
    <div className="account-list">
      <p className="quiet">
        A session ends after 30 minutes without use, and after 12 hours in any case.
      </p>
      <table>
        <thead>
          <tr>
            <th>Browser</th>
            <th>Address</th>
            <th>Signed in</th>
            <th>Last used</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {all.map((s) => (
            <tr key={s.id}>
              <td>{browserOf(s.agent)}</td>
              <td className="figures">{s.address}</td>
              <td className="figures">{dayAndTime(s.createdAt)}</td>
              <td className="figures">{dayAndTime(s.usedAt)}</td>
              <td>
                {s.id === current ? (
                  <span className="quiet">this one</span>
                ) : (
                  <Button size="small" onClick={() => void end(`/api/session/all/${s.id}`)}>
                    End
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {all.length > 1 && (
        <Button onClick={() => void end('/api/session/all')} className="account-end">
          End all others
        </Button>
      )}
      {error && <Alert type="error" title={error} />}
    </div>
  )
}
