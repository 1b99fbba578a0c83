import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { addDevice as msg } from '../../core/messages/en/devices.ts'
import './devices.css'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Alert, Button, Checkbox, Input, Spin } from 'antd'
import { useState, type ReactNode } from 'react'
import { isReachable, type DeviceView, type FoundDevice } from '../../core/devices/views.ts'
import { request } from '../api/client.ts'
import { hostOf, states } from './words.tsx'

/** How far the adding of a device has come. */
type Progress =
  | { step: 'adding' }
  | { step: 'added'; device: DeviceView }
  /** `device`: it is among the devices, but cannot be spoken with. */
  | { step: 'failed'; why: string; device: DeviceView | null }

/** How many are added at a time. */
const AT_ONCE = 4

/** Adds one, or gives it another account; one fresh from the box gets its first. */
async function addOne(
  { name, address }: FoundDevice,
  before: DeviceView | null,
  account: { username: string; password: string }
): Promise<Progress> {
  try {
    let device =
      before ??
      (await request<DeviceView>('POST', '/devices', {
        name: name || hostOf(address),
        address,
        makeCameras: true,
        username: account.username || null,
        password: account.username ? account.password : null
      }))
    const { state } = device
    if (state === 'new' && !account.username)
      return { step: 'failed', why: msg.needsAccount, device }
    // One that has no account is given it; one that refused the last is told another.
    if (account.username && (state === 'new' || (before && !isReachable(state))))
      device = await request<DeviceView>('POST', `/devices/${device.id}/account`, {
        ...account,
        first: state === 'new'
      })
    return isReachable(device.state)
      ? { step: 'added', device }
      : { step: 'failed', why: states[device.state].words, device }
  } catch (problem) {
    return { step: 'failed', why: problemWords(problem), device: before }
  }
}

/** Asks the network; what it finds is ticked, and added in one go with one account. */
export function AddFound({
  onByAddress,
  onAdded,
  onClose
}: {
  onByAddress: () => void
  onAdded: (device: DeviceView | null) => void
  onClose: () => void
}): ReactNode {
  const queries = useQueryClient()
  const found = useQuery({
    queryKey: ['find-devices'],
    queryFn: () => request<FoundDevice[]>('POST', '/devices/find'),
    staleTime: 0,
    gcTime: 0,
    refetchOnWindowFocus: false
  })
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set())
  const [progress, setProgress] = useState<ReadonlyMap<string, Progress>>(new Map())
  const [account, setAccount] = useState({ username: '', password: '' })
  const [busy, setBusy] = useState(false)
  const list = [...(found.data ?? [])].sort((a, b) => Number(a.known) - Number(b.known))
  const canAdd = (d: FoundDevice): boolean => !d.known && progress.get(d.address)?.step !== 'added'
  const open = list.filter(canAdd)
  const chosen = open.filter(({ address }) => ticked.has(address))
  const tick = (addresses: readonly string[], on: boolean): void =>
    setTicked((old) => {
      const next = new Set(old)
      for (const address of addresses)
        if (on) next.add(address)
        else next.delete(address)
      return next
    })
  const note = (address: string, what: Progress): void =>
    setProgress((old) => new Map(old).set(address, what))
  const add = async (): Promise<void> => {
    setBusy(true)
    const queue = [...chosen]
    const added: DeviceView[] = []
    const work = async (): Promise<void> => {
      for (let next; (next = queue.shift());) {
        const before = progress.get(next.address)
        note(next.address, { step: 'adding' })
        const came = await addOne(next, before?.step === 'failed' ? before.device : null, account)
        note(next.address, came)
        if (came.step === 'added') added.push(came.device)
      }
    }
    await Promise.all(Array.from({ length: AT_ONCE }, work))
    setBusy(false)
    for (const key of ['site', 'devices', 'actions', 'readiness'])
      void queries.invalidateQueries({ queryKey: [key] })
    // Nothing is left to look at here.
    if (added.length === chosen.length) onAdded(added.length === 1 ? added[0]! : null)
  }
  const failed = chosen.filter((d) => progress.get(d.address)?.step === 'failed').length
  const anyAdded = [...progress.values()].some(({ step }) => step === 'added')
  return (
    <div className="device-form">
      {/* Before what is found: whoever reaches for a button does not have it moved away. */}
      <div className="row">
        <Button onClick={() => void found.refetch()} disabled={found.isFetching || busy}>
          {msg.searchAgain}
        </Button>
        <Button onClick={onByAddress} disabled={busy}>
          {msg.enterAddress}
        </Button>
        <span className="grow" />
        {open.length > 1 && (
          <Checkbox
            checked={chosen.length === open.length}
            indeterminate={chosen.length > 0 && chosen.length < open.length}
            disabled={busy}
            onChange={(e) =>
              tick(
                open.map(({ address }) => address),
                e.target.checked
              )
            }
          >
            {msg.selectAll}
          </Checkbox>
        )}
      </div>
      {found.isFetching && (
        <div className="quiet">
          <Spin size="small" /> {msg.searchingTheNetwork}
        </div>
      )}
      {found.isError && <Alert type="error" title={problemWords(found.error)} />}
      {found.data?.length === 0 && !found.isFetching && (
        <p className="quiet">{msg.noDevicesFoundAdd}</p>
      )}
      <ul className="found-devices">
        {list.map((device) => (
          <li key={device.address}>
            <Checkbox
              className="found-device"
              checked={ticked.has(device.address) && canAdd(device)}
              disabled={busy || !canAdd(device)}
              onChange={(e) => tick([device.address], e.target.checked)}
            >
              <span>
                <strong>{device.name || device.address}</strong>
                {device.simulated && <span className="quiet"> · {msg.simulator}</span>}
              </span>{' '}
              <span className="quiet figures">{hostOf(device.address)}</span>{' '}
              <Came device={device} progress={progress.get(device.address)} />
            </Checkbox>
          </li>
        ))}
      </ul>
      {list.some((d) => !d.known) && (
        <fieldset className="found-account">
          <legend>{msg.account}</legend>
          <label className="field">
            <span>{common.userName}</span>
            <Input
              autoComplete="off"
              value={account.username}
              onChange={(e) => setAccount({ ...account, username: e.target.value })}
            />
          </label>
          <label className="field">
            <span>{common.password}</span>
            <Input.Password
              autoComplete="new-password"
              value={account.password}
              onChange={(e) => setAccount({ ...account, password: e.target.value })}
            />
          </label>
          <p className="quiet">{msg.accountHelp}</p>
        </fieldset>
      )}
      <div className="row">
        <Button type="primary" loading={busy} disabled={!chosen.length} onClick={() => void add()}>
          {failed && failed === chosen.length ? msg.retry(failed) : msg.add(chosen.length)}
        </Button>
        {anyAdded && !busy && <Button onClick={onClose}>{msg.done}</Button>}
      </div>
    </div>
  )
}

/** What became of one: it is among the devices already, or why not. */
function Came({
  device,
  progress
}: {
  device: FoundDevice
  progress: Progress | undefined
}): ReactNode {
  if (progress?.step === 'adding') return <span className="quiet">{msg.adding}</span>
  if (progress?.step === 'failed')
    return (
      <span className="failed">{progress.device ? msg.addedBut(progress.why) : progress.why}</span>
    )
  if (progress?.step === 'added')
    return (
      <span className="quiet">
        {msg.addedWith(progress.device.channels.filter((c) => c.camera !== null).length)}
      </span>
    )
  return device.known ? <span className="quiet">{msg.added}</span> : null
}
