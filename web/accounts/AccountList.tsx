import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { accountList as msg } from '../../core/messages/en/accounts.ts'
import './accounts.css'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Alert, Button, Input, Popconfirm, Select } from 'antd'
import { useState, type ReactNode } from 'react'
import { ROLES, type AccountView, type Role, type SiteRole } from '../../core/accounts/accounts.ts'
import { request } from '../api/client.ts'
import { useSites } from '../sites/useSites.ts'
import { SiteRoles } from './SiteRoles.tsx'

const roleWords: Record<Role, string> = {
  installer: msg.installerSetsEverythingUp,
  operator: msg.operatorDealsWithAlarms,
  viewer: msg.viewerLooksOnly
}
const roles = ROLES.map((value) => ({ value, label: roleWords[value] }))
/** On every site; `none`: only on those that are named. */
const everywhere: { value: Role | 'none'; label: string }[] = [
  ...roles,
  { value: 'none', label: msg.onlyOnSomeSites }
]
const roleOf = (value: Role | 'none'): Role | null => (value === 'none' ? null : value)
const fresh = {
  username: '',
  name: '',
  password: '',
  role: 'operator' as Role | null,
  sites: [] as SiteRole[]
}

/** Who may sign in; roles, new passwords, new accounts. */
export function AccountList({ me }: { me: number }): ReactNode {
  const queries = useQueryClient()
  const accounts = useQuery({
    queryKey: ['accounts'],
    queryFn: () => request<AccountView[]>('GET', '/api/accounts')
  })
  const sites = useSites()
  const several = (sites.data?.length ?? 0) > 1
  const [wanted, setWanted] = useState(fresh)
  const [error, setError] = useState<string | null>(null)
  const act = async (work: () => Promise<unknown>): Promise<void> => {
    setError(null)
    try {
      await work()
      await queries.invalidateQueries({ queryKey: ['accounts'] })
    } catch (problem) {
      setError(
        problemWords(problem, {
          username: common.userName,
          name: common.name,
          password: common.password,
          role: msg.role
        })
      )
    }
  }
  const change = (
    { id, name, role, sites }: AccountView,
    part: Partial<Pick<AccountView, 'role' | 'sites'>>
  ): Promise<void> =>
    act(() => request('PUT', `/api/accounts/${id}`, { name, role, sites, ...part }))
  return (
    <div className="account-list">
      <table>
        <thead>
          <tr>
            <th>{common.name}</th>
            <th>{common.userName}</th>
            <th>{several ? msg.onEverySite : msg.role}</th>
            {several && <th>{msg.bySite}</th>}
            <th />
          </tr>
        </thead>
        <tbody>
          {accounts.data?.map((a) => (
            <tr key={a.id}>
              <td>{a.name}</td>
              <td>{a.username}</td>
              <td>
                <Select
                  size="small"
                  aria-label={msg.roleOf(a.name)}
                  value={a.role ?? 'none'}
                  options={several || a.role === null ? everywhere : roles}
                  popupMatchSelectWidth={false}
                  onChange={(role: Role | 'none') => void change(a, { role: roleOf(role) })}
                />
              </td>
              {several && (
                <td>
                  <SiteRoles
                    account={a}
                    sites={sites.data ?? []}
                    onChange={(own) => change(a, { sites: own })}
                  />
                </td>
              )}
              <td>
                <Popconfirm
                  title={msg.canNoLongerSign(a.name)}
                  okText={common.remove}
                  onConfirm={() => void act(() => request('DELETE', `/api/accounts/${a.id}`))}
                  disabled={a.id === me}
                >
                  <Button size="small" type="text" disabled={a.id === me}>
                    {common.remove}
                  </Button>
                </Popconfirm>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <form
        className="account-new"
        onSubmit={(e) => {
          e.preventDefault()
          void act(async () => {
            await request('POST', '/api/accounts', wanted)
            setWanted(fresh)
          })
        }}
      >
        <Input
          size="small"
          aria-label={common.name}
          placeholder={common.name}
          value={wanted.name}
          onChange={(e) => setWanted({ ...wanted, name: e.target.value })}
        />
        <Input
          size="small"
          aria-label={common.userName}
          placeholder={common.userName}
          autoComplete="off"
          value={wanted.username}
          onChange={(e) => setWanted({ ...wanted, username: e.target.value })}
        />
        <Input.Password
          size="small"
          aria-label={common.password}
          placeholder={common.password}
          autoComplete="new-password"
          value={wanted.password}
          onChange={(e) => setWanted({ ...wanted, password: e.target.value })}
        />
        <Select
          size="small"
          aria-label={msg.role}
          value={wanted.role ?? 'none'}
          options={several ? everywhere : roles}
          popupMatchSelectWidth={false}
          onChange={(role: Role | 'none') => setWanted({ ...wanted, role: roleOf(role) })}
        />
        <Button size="small" type="primary" htmlType="submit">
          {common.add}
        </Button>
      </form>
      {error && <Alert type="error" title={error} />}
    </div>
  )
}
