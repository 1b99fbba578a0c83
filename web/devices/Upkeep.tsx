import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { upkeep as msg } from '../../core/messages/en/upkeep.ts'
import './devices.css'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Alert, Button, Input, Popover, Select } from 'antd'
import { useState, type ReactNode } from 'react'
import {
  NIGHT_PICTURES,
  type NightPicture,
  type StorageView,
  type UpkeepView
} from '../../core/devices/upkeep.ts'
import { request } from '../api/client.ts'
import type { PartProps } from './act.ts'

const modes = NIGHT_PICTURES.map((value) => ({ value, label: msg.modes[value] }))

/** What a device says of one place that it records to. */
const storageWords = (s: StorageView): string =>
  [
    s.place,
    s.bytes === null ? null : msg.room(s.free, s.bytes),
    s.whenFull && msg.whenFull[s.whenFull],
    s.outsideEvents && msg.outsideEvents[s.outsideEvents],
    s.before !== null && s.after !== null ? msg.aroundEvents(s.before, s.after) : null
  ]
    .filter(Boolean)
    .join(' · ')

/** Clock, night picture, network and storage of a device, as it says now. */
export function Upkeep({ device: { id, clockAhead }, act, working }: PartProps): ReactNode {
  const queries = useQueryClient()
  const key = ['upkeep', id]
  const upkeep = useQuery({
    queryKey: key,
    queryFn: () => request<UpkeepView>('GET', `/devices/${id}/upkeep`),
    staleTime: 60_000,
    retry: false
  })
  const change = (what: string, work: () => Promise<unknown>): Promise<void> =>
    act(what, async () => {
      await work()
      await queries.invalidateQueries({ queryKey: key })
    })
  if (upkeep.error && !upkeep.data)
    return <Alert type="warning" title={problemWords(upkeep.error)} />
  if (!upkeep.data) return <p className="quiet">{common.loading}</p>
  const { clock, network, channels, storage } = upkeep.data
  return (
    <dl className="device-facts">
      {clock && (
        <div>
          <dt>{msg.clock}</dt>
          <dd className="row-wrap">
            <span>
              {[
                clockAhead === null ? null : msg.offBy(clockAhead),
                clock.byNtp ? msg.byNtp(network?.ntp ?? []) : msg.byHand,
                clock.zone === null ? null : clock.ofSite ? msg.siteZone : msg.otherZone
              ]
                .filter(Boolean)
                .join(' · ')}
            </span>
            <ClockForm
              working={working === 'clock'}
              onSet={(ntp) =>
                change('clock', () => request('PUT', `/devices/${id}/clock`, { ntp }))
              }
            />
          </dd>
        </div>
      )}
      {channels
        .filter((c) => c.nightPicture !== null)
        .map((c) => (
          <div key={c.token}>
            <dt>{msg.nightPicture}</dt>
            <dd>
              {channels.length > 1 && <span className="quiet">{c.name}: </span>}
              <Select<NightPicture>
                size="small"
                aria-label={msg.nightPictureOf(c.name)}
                value={c.nightPicture}
                options={modes}
                popupMatchSelectWidth={false}
                onChange={(mode) =>
                  void change('night', () =>
                    request('PUT', `/devices/${id}/channels/${c.token}/night-picture`, { mode })
                  )
                }
              />
              {c.nightPicture !== 'day' && <p className="quiet upkeep-note">{msg.noColour}</p>}
            </dd>
          </div>
        ))}
      {network && (
        <div>
          <dt>{msg.network}</dt>
          <dd className="figures">
            {[
              ...network.addresses,
              ...(network.gateways.length ? [msg.gateway(network.gateways)] : []),
              ...(network.dns.length ? [msg.dns(network.dns)] : [])
            ].join(' · ')}
          </dd>
        </div>
      )}
      {storage && (
        <div>
          <dt>{msg.storage}</dt>
          <dd>{storage.length ? storage.map(storageWords).join('; ') : msg.noStorage}</dd>
        </div>
      )}
      {channels.some((c) => c.microphone) && (
        <div>
          <dt>{msg.sound}</dt>
          <dd>{msg.microphoneOn}</dd>
        </div>
      )}
    </dl>
  )
}

function ClockForm({
  working,
  onSet
}: {
  working: boolean
  onSet: (ntp: string | null) => Promise<void>
}): ReactNode {
  const [open, setOpen] = useState(false)
  const [ntp, setNtp] = useState('')
  const set = (host: string | null): void => {
    setOpen(false)
    void onSet(host)
  }
  return (
    <Popover
      open={open}
      onOpenChange={setOpen}
      trigger="click"
      placement="bottomLeft"
      content={
        <form
          className="clock-form"
          onSubmit={(e) => {
            e.preventDefault()
            if (ntp.trim()) set(ntp.trim())
          }}
        >
          <Button type="primary" onClick={() => set(null)}>
            {msg.setToTimeHere}
          </Button>
          <label className="field">
            <span className="field-name">{msg.orTimeServer}</span>
            <span className="row">
              <Input
                size="small"
                placeholder={msg.serverSuchAs}
                value={ntp}
                maxLength={253}
                onChange={(e) => setNtp(e.target.value)}
              />
              <Button size="small" htmlType="submit" disabled={!ntp.trim()}>
                {msg.use}
              </Button>
            </span>
          </label>
          <p className="quiet">{msg.zoneToo}</p>
        </form>
      }
    >
      <Button size="small" loading={working}>
        {msg.setClock}
      </Button>
    </Popover>
  )
}
