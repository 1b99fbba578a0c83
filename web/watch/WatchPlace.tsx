import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { watchPlace as msg } from '../../core/messages/en/watch.ts'
import './watch.css'
import { useQuery } from '@tanstack/react-query'
import { Alert, Segmented } from 'antd'
import { Suspense, useEffect, useMemo, type ReactNode } from 'react'
import { NavLink, useParams, useSearchParams } from 'react-router'
import { byPriority } from '../../core/actions/alarms.ts'
import type { AlarmView } from '../../core/api.ts'
import type { WatchView } from '../../core/watch/views.ts'
import { useAccount } from '../accounts/useSession.ts'
import { useAlarm, useAlarms } from '../alarms/useAlarms.ts'
import { request } from '../api/client.ts'
import { alarm as shared } from '../../core/messages/en/alarms.ts'
import { severityOf } from '../alarms/facts.ts'
import { Closed, Flag, Passed } from '../words/signs.tsx'
import { useClock } from '../words/useClock.ts'
import { AlarmDesk } from './AlarmDesk.tsx'
import { LiveTile } from '../scene/LiveTile.tsx'
import { WatchStream } from '../scene/liveStream.ts'
import { lazyPart } from '../lazyPart.tsx'

const LOOK_MS = 15_000
const SearchPart = lazyPart(() => import('./SearchPart.tsx'), 'SearchPart')

/** Live pictures with shapes and targets, and the new alarms. */
export function WatchPlace(): ReactNode {
  const watch = useQuery({
    queryKey: ['watch'],
    queryFn: () => request<WatchView>('GET', '/watch'),
    refetchInterval: LOOK_MS
  })
  const alarms = useAlarms()
  const account = useAccount()
  const [address, setAddress] = useSearchParams()
  const { part } = useParams()
  const searching = part === 'search'
  const stream = useMemo(() => (searching ? null : new WatchStream()), [searching])
  useEffect(() => stream?.run(), [stream])
  const list = alarms.data?.alarms ?? []
  const wanted = address.get('alarm')
  const older = useAlarm(
    wanted !== null && !list.some((a) => String(a.id) === wanted) ? wanted : null
  ).data
  if (watch.error && !watch.data)
    return <Alert className="notice" type="error" showIcon title={problemWords(watch.error)} />
  if (!watch.data || (!stream && !searching)) return <p className="waiting">{common.loading}</p>
  const { cameras, people } = watch.data
  const waiting = list.filter((a) => a.state === 'waiting').sort(byPriority)
  const rest = list.filter((a) => a.state !== 'waiting')
  const chosen = list.find((a) => String(a.id) === wanted) ?? older ?? null
  const large = address.get('camera') ?? chosen?.camera ?? null
  const go = (change: Record<string, string | null>): void => {
    const next = new URLSearchParams(address)
    for (const [key, value] of Object.entries(change)) {
      if (value === null) next.delete(key)
      else next.set(key, value)
    }
    setAddress(next)
  }
  const view = large ? 'one' : 'all'
  return (
    <main className="watch-place">
      {searching || !stream ? (
        <Suspense fallback={null}>
          <SearchPart
            view={watch.data}
            address={address}
            onAddress={go}
            onAlarm={(t) => t.alarm !== null && go({ alarm: String(t.alarm) })}
          />
        </Suspense>
      ) : (
        <section className={`watch-pictures ${view}`} aria-label={msg.livePictures}>
          {cameras.map((c) => (
            <LiveTile
              key={c.id}
              stream={stream}
              camera={c.id}
              name={c.name}
              detections={c.detections}
              unheld={c.unheld}
              alarmed={new Set(waiting.filter((a) => a.camera === c.id).map((a) => a.detection))}
              chosen={c.id === large}
              large={c.id === large}
              onChoose={() =>
                go({ camera: c.id === large ? null : c.id, ...(c.id === large && { alarm: null }) })
              }
            />
          ))}
        </section>
      )}
      <aside className="watch-side">
        <nav className="watch-parts" aria-label={msg.partsOfWatch}>
          <NavLink to="/watch" end className="part">
            {common.live}
          </NavLink>
          <NavLink to="/watch/search" className="part">
            {msg.search}
          </NavLink>
        </nav>
        <div className="watch-tools">
          <h1>
            {waiting.length
              ? msg.waiting(alarms.data?.waiting ?? waiting.length)
              : msg.noActiveAlarms}
          </h1>
          {!searching && (
            <Segmented
              aria-label={msg.livePictures}
              size="small"
              value={view}
              onChange={(to) =>
                go(to === 'all' ? { camera: null, alarm: null } : { camera: cameras[0]!.id })
              }
              options={[
                { value: 'all', label: msg.allCameras },
                { value: 'one', label: msg.oneLarge }
              ]}
            />
          )}
        </div>
        <ul className="alarm-queue" aria-label={msg.alarms}>
          {[...waiting, ...rest].map((a) => (
            <li key={a.id}>
              <AlarmLine
                alarm={a}
                chosen={a === chosen}
                onChoose={() =>
                  go({
                    alarm: a === chosen ? null : String(a.id),
                    ...(!searching && { camera: null })
                  })
                }
              />
            </li>
          ))}
          {!list.length && <li className="quiet">{msg.noAlarmYet}</li>}
        </ul>
        {chosen && (
          <AlarmDesk
            key={chosen.id}
            alarm={chosen}
            people={people}
            mayAct={account?.role !== 'viewer'}
          />
        )}
      </aside>
    </main>
  )
}

function AlarmLine({
  alarm: a,
  chosen,
  onChoose
}: {
  alarm: AlarmView
  chosen: boolean
  onChoose: () => void
}): ReactNode {
  const clock = useClock()
  return (
    <button
      type="button"
      className={`alarm-line ${a.state}${chosen ? ' chosen' : ''}`}
      aria-pressed={chosen}
      onClick={onChoose}
    >
      <span className="alarm-mark" aria-hidden="true">
        {a.state === 'waiting' ? <Flag /> : a.state === 'closed' ? <Closed /> : <Passed />}
      </span>
      <span>
        <strong>{a.name}</strong>
        <span className="quiet">
          {' '}
          {[a.cameraName, a.run !== null && shared.fromAClip].filter(Boolean).join(', ')}
        </span>
      </span>
      <span className="figures">{clock.time(a.lastAt)}</span>
      <small className="quiet">
        {[
          severityOf(a),
          a.triggers > 1 && shared.triggers(a.triggers),
          a.assignee && shared.assignedTo(a.assignee),
          a.state !== 'waiting' && a.acknowledgedBy
        ]
          .filter(Boolean)
          .join(' · ')}
      </small>
    </button>
  )
}
