import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { emptyPlace } from '../../core/messages/en/shell.ts'
import { watchPlace as msg } from '../../core/messages/en/watch.ts'
import './watch.css'
import { useQuery } from '@tanstack/react-query'
import { Alert, Segmented } from 'antd'
import { Suspense, useEffect, useMemo, useState, type ReactNode } from 'react'
import { Link, NavLink, useParams, useSearchParams } from 'react-router'
import { byPriority } from '../../core/actions/alarms.ts'
import type { AlarmView } from '../../core/api.ts'
import { groupAlarms, passes, readFilter } from '../../core/watch/queue.ts'
import type { WatchView } from '../../core/watch/views.ts'
import { useAccount } from '../accounts/useSession.ts'
import { useAlarm, useAlarms } from '../alarms/useAlarms.ts'
import { request } from '../api/client.ts'
import { here } from '../api/here.ts'
import { keep, kept } from '../kept.ts'
import { AlarmDesk } from './AlarmDesk.tsx'
import { AlarmQueue } from './AlarmQueue.tsx'
import { ShiftNotes } from './ShiftNotes.tsx'
import { useHeldStill } from '../useHeldStill.ts'
import { useShift } from './useShift.ts'
import { LiveTile } from '../scene/LiveTile.tsx'
import { WatchStream } from '../scene/liveStream.ts'
import { lazyPart } from '../lazyPart.tsx'

const LOOK_MS = 15_000
const SearchPart = lazyPart(() => import('./SearchPart.tsx'), 'SearchPart')

/** Of the group that an alarm stands in, those that come after it and are in its state. */
const earlierThan = (alarm: AlarmView, alarms: readonly AlarmView[]): AlarmView[] => {
  const group: readonly AlarmView[] = groupAlarms(alarms).find((g) => g.includes(alarm)) ?? []
  return group.slice(group.indexOf(alarm) + 1)
}

/** Live pictures with shapes and targets, and the new alarms. */
export function WatchPlace(): ReactNode {
  const watch = useQuery({
    queryKey: ['watch'],
    queryFn: () => request<WatchView>('GET', '/watch'),
    refetchInterval: LOOK_MS
  })
  const shift = useShift()
  const alarms = useAlarms()
  const [shown, holdAlarms] = useHeldStill(alarms.data)
  const account = useAccount()
  const [address, setAddress] = useSearchParams()
  const { part } = useParams()
  const searching = part === 'search'
  const stream = useMemo(() => (searching ? null : new WatchStream()), [searching])
  useEffect(() => stream?.run(), [stream])
  const list = shown?.alarms ?? []
  const filterKey = `wardoptic.queue.${here() ?? ''}`
  const [filter, setFilter] = useState(() => readFilter(kept(filterKey)))
  const wanted = address.get('alarm')
  const older = useAlarm(
    wanted !== null && !list.some((a) => String(a.id) === wanted) ? wanted : null
  ).data
  if (watch.error && !watch.data)
    return <Alert className="notice" type="error" showIcon title={problemWords(watch.error)} />
  // All of it at once: what comes later would push away what somebody is about to click.
  if (!watch.data || shift.isPending || alarms.isPending || (!stream && !searching))
    return <p className="waiting">{common.loading}</p>
  const { cameras, people } = watch.data
  const waiting = list.filter((a) => a.state === 'waiting').sort(byPriority)
  const ordered = [...waiting, ...list.filter((a) => a.state !== 'waiting')]
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
          {!cameras.length && (
            <p className="nothing-to-watch">
              {emptyPlace.noCameras}
              {account?.role === 'installer' && <Link to="/site">{emptyPlace.goToTheSite}</Link>}
            </p>
          )}
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
          {!searching && cameras.length > 0 && (
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
        {/* Whoever deals with an alarm wants its desk, not further down. */}
        {!chosen && shift.data && (
          <ShiftNotes shift={shift.data} mayAct={account !== null && account.role !== 'viewer'} />
        )}
        <AlarmQueue
          alarms={ordered}
          chosen={chosen}
          cameras={cameras}
          onPress={holdAlarms}
          filter={filter}
          onFilter={(next) => {
            setFilter(next)
            keep(filterKey, JSON.stringify(next))
          }}
          onChoose={(a) =>
            go({
              alarm: a === chosen ? null : String(a.id),
              ...(!searching && { camera: null })
            })
          }
        />
        {chosen && (
          <AlarmDesk
            key={chosen.id}
            alarm={chosen}
            earlier={earlierThan(
              chosen,
              ordered.filter((a) => passes(filter, a))
            )}
            people={people}
            mayAct={account?.role !== 'viewer'}
          />
        )}
      </aside>
    </main>
  )
}
