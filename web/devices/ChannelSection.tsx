import { wordsOf } from '../../core/messages/words.ts'
import { common } from '../../core/messages/en/common.ts'
import { channelSection as msg } from '../../core/messages/en/devices.ts'
import './devices.css'
import { Button, Segmented, Select, Switch } from 'antd'
import type { ReactNode } from 'react'
import { surroundings } from '../../core/messages/en/site.ts'
import type { SurroundingsStanding } from '../../core/sites/surroundings.ts'
import type { ChannelDetection, ChannelView } from '../../core/devices/views.ts'
import { request } from '../api/client.ts'
import { useSite } from '../api/queries.ts'
import { localName } from '../../core/formats/onvif/rule.ts'
import { kindNames } from '../../core/kinds/names.ts'
import type { PartProps } from './act.ts'
import { abilityWords, detectionWords, lossWords, typeWords } from './words.tsx'

interface Props extends PartProps {
  channel: ChannelView
  /** Whether the channel has to be told from others. */
  named: boolean
}

/** One picture of a device: which camera it is, what its analysis can do, and what on it differs from the plan. */
export function ChannelSection({ device, channel, named, act, working }: Props): ReactNode {
  const site = useSite()
  const path = `/devices/${device.id}/channels/${channel.token}`
  const running = channel.modes.find((mode) => mode.running)
  return (
    <section className="channel" aria-label={named ? channel.name : msg.picture}>
      {named && <h3>{channel.name}</h3>}
      <dl className="device-facts">
        <div>
          <dt>{common.camera}</dt>
          <dd className="channel-camera">
            <Select
              aria-label={msg.cameraOf(channel.name)}
              size="small"
              className="camera-choice"
              value={channel.camera ?? ''}
              options={[
                { value: '', label: common.none },
                ...(site.data?.cameras ?? []).map((c) => ({ value: c.id, label: c.name }))
              ]}
              onChange={(camera) =>
                void act(`camera ${channel.token}`, () =>
                  request('PUT', path, { camera: camera || null })
                )
              }
            />
            {named && channel.camera !== null && channel.abilities.length > 0 && (
              <label>
                <Switch
                  size="small"
                  checked={channel.used}
                  onChange={(used) =>
                    void act(`used ${channel.token}`, () => request('PUT', path, { used }))
                  }
                />{' '}
                {msg.sendThePlanThroughHere}
              </label>
            )}
          </dd>
        </div>
        <div>
          <dt>{msg.supports}</dt>
          <dd>
            {channel.abilities.length === 0
              ? msg.doNotRunHere
              : channel.abilities.map((a) => (
                  <span key={a.type} className="ability">
                    {abilityWords(a)}
                  </span>
                ))}
            {channel.mostRules !== null && (
              <span className="ability">{msg.detectionsInTotal(channel.mostRules)}</span>
            )}
          </dd>
        </div>
        {channel.surroundings && (
          <div>
            <dt>{msg.surroundings}</dt>
            <dd>{surroundingsWords(channel.surroundings)}</dd>
          </div>
        )}
        {channel.modes.length > 0 && (
          <div>
            <dt>{msg.analysis}</dt>
            <dd>
              <Segmented
                aria-label={msg.analysisModeOf(channel.name)}
                size="small"
                disabled={working !== null}
                value={running?.type ?? 'none'}
                options={[
                  ...(running ? [] : [{ label: common.none, value: 'none' }]),
                  ...channel.modes.map(({ type }) => ({ label: localName(type), value: type }))
                ]}
                onChange={(type) =>
                  void act('mode', () => request('PUT', `${path}/mode`, { type }))
                }
              />
              <span className="quiet">{modeSentence(channel)}</span>
            </dd>
          </div>
        )}
      </dl>
      {channel.detections.length === 0 &&
        channel.unmanaged.length === 0 &&
        channel.abilities.length > 0 && (
          <p className="quiet">
            {channel.camera === null ? msg.selectTheCamera : msg.noDetectionsDrawnAnd}
          </p>
        )}
      {(channel.abilities.length > 0 || channel.detections.length > 0) && (
        <ul className="device-detections" aria-label={msg.planAndDevice}>
          {channel.detections.map((x) => (
            <DetectionRow
              key={x.id}
              detection={x}
              takeOver={() =>
                act(`take ${x.id}`, () =>
                  request('POST', `/devices/${device.id}/take-over`, {
                    channel: channel.token,
                    rule: x.id
                  })
                )
              }
              working={working}
            />
          ))}
          {channel.unmanaged.map(({ name, kind }) => (
            <li key={name} className="differs">
              <strong>{name}</strong>{' '}
              <span>{msg.onTheDeviceAnd(kind ? `${kindNames[kind]}, ` : '')}</span>
              {kind && channel.camera !== null && (
                <Button
                  size="small"
                  loading={working === `take ${name}`}
                  onClick={() =>
                    void act(`take ${name}`, () =>
                      request('POST', `/devices/${device.id}/take-over`, {
                        channel: channel.token,
                        rule: name
                      })
                    )
                  }
                >
                  {msg.importFromDevice}
                </Button>
              )}
            </li>
          ))}
        </ul>
      )}
      {channel.switchesBack.length > 0 && (
        <p className="failed">{msg.theDeviceSwitchedBack(channel.switchesBack.map(typeWords))}</p>
      )}
    </section>
  )
}

function surroundingsWords({ held, wanted }: SurroundingsStanding): string {
  const device = (held === null ? common.none : surroundings[held]).toLowerCase()
  if (wanted === null) return msg.surroundingsNotOffered(device)
  if (wanted === held) return msg.surroundingsAsInThePlan(device)
  return msg.surroundingsDiffer(surroundings[wanted].toLowerCase(), device)
}

/** What runs, and what does nothing meanwhile. */
function modeSentence({ modes }: ChannelView): string {
  const words = (runs: readonly string[]): string => runs.map(typeWords).join(', ')
  const idle = modes.filter((mode) => !mode.running).flatMap(({ runs }) => runs)
  const running = modes.find((mode) => mode.running)
  return msg.modes(running ? words(running.runs) : null, idle.length ? words(idle) : null)
}

function DetectionRow({
  detection: x,
  takeOver,
  working
}: {
  detection: ChannelDetection
  takeOver: () => Promise<void>
  working: string | null
}): ReactNode {
  return (
    <li className={x.state}>
      <strong>{x.name}</strong> <span>{detectionWords(x)}</span>
      {x.state === 'drifted' &&
        !x.differences.some(({ device }) => device.code === 'values.removedOnDevice') && (
          <Button size="small" loading={working === `take ${x.id}`} onClick={() => void takeOver()}>
            {msg.importFromDevice}
          </Button>
        )}
      {x.differences.map((diff) => (
        <span key={wordsOf(diff.setting)} className="difference">
          {msg.planDevice(wordsOf(diff.setting), wordsOf(diff.plan), wordsOf(diff.device))}
        </span>
      ))}
      {x.losses.map((loss) => (
        <span key={loss.setting} className={`difference${loss.elsewhere ? ' quiet' : ''}`}>
          {lossWords(loss)}
        </span>
      ))}
    </li>
  )
}
