import { wordsOf } from '../../../core/messages/words.ts'
import { problemWords } from '../../../core/messages/errorWords.ts'
import { common } from '../../../core/messages/en/common.ts'
import { walkPart as msg } from '../../../core/messages/en/prove/walk.ts'
import './walk.css'
import '../prove.css'
import { CaretRightOutlined, StopOutlined } from '@ant-design/icons'
import { useQuery } from '@tanstack/react-query'
import { Alert, App, Button, Progress, Select } from 'antd'
import { useEffect, useMemo, useState, type ReactNode } from 'react'
import { Link, useSearchParams } from 'react-router'
import type { SiteActionsView } from '../../../core/api.ts'
import type { Check } from '../../../core/formats/check.ts'
import type { WalkTestView } from '../../../core/proving/live.ts'
import type { SavedCheck, ProvingView } from '../../../core/proving/views.ts'
import type { WatchView } from '../../../core/watch/views.ts'
import { readScene } from '../../../simulation/script.ts'
import { request } from '../../api/client.ts'
import { useSiteActions } from '../../sync/useSiteDocument.ts'
import { LiveTile } from '../../scene/LiveTile.tsx'
import { WatchStream } from '../../scene/liveStream.ts'
import { newCheck } from '../newCheck.ts'
import { useProving, useRefresh } from '../useProving.ts'
import { WalkFollow } from './WalkFollow.tsx'
import { WalkOrder } from './WalkOrder.tsx'
import { useAwake } from './useAwake.ts'
import { isRunning, useWalk, useWalkDoes } from './useWalk.ts'

/**
 * A check walked in front of its live camera: the target, its gates as they pass, the trigger, and
 * then what arrives.
 */
export function WalkPart(): ReactNode {
  const proving = useProving()
  const site = useSiteActions()
  const watch = useQuery({
    queryKey: ['watch'],
    queryFn: () => request<WatchView>('GET', '/watch')
  })
  const error = proving.error ?? site.error ?? watch.error
  if (error && !(proving.data && site.data && watch.data))
    return <Alert className="notice" type="error" showIcon title={problemWords(error)} />
  if (!proving.data || !site.data || !watch.data) return <p className="waiting">{common.loading}</p>
  return <Walking proving={proving.data} site={site.data} watch={watch.data} />
}

const walkable = (c: SavedCheck): boolean => c.check.by.how !== 'clip'
const OWN = ''

function Walking({
  proving,
  site,
  watch
}: {
  proving: ProvingView
  site: SiteActionsView
  watch: WatchView
}): ReactNode {
  const [address, setAddress] = useSearchParams()
  const cameras = site.site.cameras.filter((c) => site.detections.some((d) => d.camera === c.id))
  const camera = cameras.find((c) => c.id === address.get('camera')) ?? cameras.at(0)
  const choose = (change: Record<string, string>): void =>
    setAddress(
      (old) =>
        new URLSearchParams({ ...(change.camera ? {} : Object.fromEntries(old)), ...change }),
      { replace: true }
    )
  if (!camera)
    return (
      <main className="prove-place">
        <section className="empty-place">
          <h2>{msg.noDetectionsToWalk}</h2>
          <p>{msg.drawADetectionOnThe}</p>
        </section>
      </main>
    )
  const own = proving.checks.filter((c) => c.camera === camera.id)
  const kept = own.filter(walkable).find((c) => c.check.id === address.get('check')) ?? null
  const detections = site.detections.filter((d) => d.camera === camera.id)
  const detection = (
    detections.find(
      (d) => d.detection.id === (kept?.check.detection ?? address.get('detection'))
    ) ?? detections[0]!
  ).detection
  return (
    <main className="prove-place">
      <header className="prove-head">
        <h1>{msg.walkTest}</h1>
        <Select
          aria-label={common.camera}
          className="walk-camera"
          value={camera.id}
          options={cameras.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={(id) => choose({ camera: id })}
        />
        <Select
          aria-label={msg.check}
          className="walk-check"
          value={kept?.check.id ?? `${OWN} ${detection.id}`}
          showSearch={{ optionFilterProp: 'label' }}
          options={detections.map(({ detection: d }) => ({
            label: d.name,
            options: [
              { value: `${OWN} ${d.id}`, label: msg.aWalkOf(d.name) },
              ...own
                .filter((c) => walkable(c) && c.check.detection === d.id)
                .map(({ check }) => ({ value: check.id, label: wordsOf(check.name) }))
            ]
          }))}
          onChange={(id: string) =>
            choose(
              id.startsWith(`${OWN} `)
                ? { camera: camera.id, check: '', detection: id.slice(1) }
                : { camera: camera.id, check: id }
            )
          }
        />
        <span className="grow" />
        <Link
          to={`/prove?camera=${camera.id}&detection=${detection.id}${kept ? `&check=${kept.check.id}` : ''}`}
        >
          {msg.allChecks}
        </Link>
      </header>
      <OneWalk
        key={`${camera.id} ${kept?.check.id ?? ''} ${kept?.version ?? 0} ${detection.id} ${kept ? '' : (plainCheck(camera.id, detection, proving)?.id ?? '')}`}
        camera={camera}
        detection={detection}
        kept={kept}
        proving={proving}
        site={site}
        watch={watch}
      />
    </main>
  )
}

interface OneProps {
  camera: { id: string; name: string }
  detection: SiteActionsView['detections'][number]['detection']
  kept: SavedCheck | null
  proving: ProvingView
  site: SiteActionsView
  watch: WatchView
}

function OneWalk({ camera, detection, kept, proving, site, watch }: OneProps): ReactNode {
  const held = proving.scenes[camera.id] ?? null
  const scene = useMemo(() => (held ? readScene(held.scene) : null), [held])
  const [check, setCheck] = useState<Check>(
    () => kept?.check ?? ownWalk(camera.id, detection, proving)
  )
  const walk = useWalk(camera.id)
  const does = useWalkDoes(camera.id)
  const refresh = useRefresh()
  const { message } = App.useApp()
  const stream = useMemo(() => new WatchStream([camera.id]), [camera.id])
  useEffect(() => stream.run(), [stream])
  // A walk of one's own has an id that is new with each opening of this page; it is told by what it is not.
  const mine =
    walk.data &&
    (kept
      ? walk.data.check.id === kept.check.id
      : walk.data.check.detection === detection.id &&
        !proving.checks.some((c) => c.camera === camera.id && c.check.id === walk.data!.check.id))
  const view = mine ? walk.data! : null
  const going = isRunning(walk.data)
  useAwake(going)
  // When it has ended, the list of checks has something new.
  const ended = view?.state === 'done'
  useEffect(() => {
    if (ended) void refresh()
  }, [ended, refresh])
  const act = async (work: () => Promise<unknown>): Promise<void> => {
    try {
      await work()
    } catch (error) {
      void message.error(problemWords(error))
    }
  }
  const shown = watch.cameras.find((c) => c.id === camera.id)
  const changed = kept !== null && JSON.stringify(kept.check) !== JSON.stringify(check)
  const keep = (): Promise<void> =>
    act(async () => {
      await request('PUT', `/cameras/${camera.id}/checks/${check.id}`, { check, version: 0 })
      await refresh()
      void message.success(msg.addedToTheChecks(wordsOf(check.name)))
    })
  return (
    <div className="walk-body">
      <aside className="walk-side" aria-label={msg.whatIsWalked}>
        <h2>{wordsOf(check.name)}</h2>
        <WalkOrder
          check={check}
          scene={scene}
          detection={detection}
          timeZone={site.site.timeZone}
          disabled={going}
          onChange={setCheck}
        />
        {changed && (
          <p className="quiet">
            {msg.changedForThisTimeWhat}{' '}
            <Button size="small" onClick={() => setCheck(kept.check)}>
              {msg.reset}
            </Button>
          </p>
        )}
        {!kept &&
          !proving.checks.some((c) => c.check.id === check.id) &&
          check.by.how === 'walk' && (
            <Button size="small" disabled={going} onClick={() => void keep()}>
              {msg.addToChecks}
            </Button>
          )}
      </aside>
      <section className="walk-live" aria-label={common.live}>
        {stream && shown && (
          <LiveTile
            stream={stream}
            camera={camera.id}
            name={camera.name}
            detections={shown.detections.filter((d) => d.id === detection.id)}
            unheld={shown.unheld}
            alarmed={new Set(view?.triggers.length && going ? [detection.id] : [])}
            chosen={false}
            large
            onChoose={() => {}}
          />
        )}
        <div className="walk-bar">
          {!going && (
            <Button
              type="primary"
              icon={<CaretRightOutlined aria-hidden />}
              disabled={check.by.how === 'walk' && !scene}
              onClick={() => void act(() => does.start(check))}
            >
              {check.by.how === 'person'
                ? msg.startWalk
                : view?.verdict
                  ? msg.walkAgain
                  : msg.whatIsWalked}
            </Button>
          )}
          {going && walk.data && (
            <>
              {walk.data.how === 'person' && walk.data.state === 'walking' && (
                <Button onClick={() => void act(does.finish)}>{msg.finishWalk}</Button>
              )}
              <Button icon={<StopOutlined aria-hidden />} onClick={() => void act(does.stop)}>
                {common.stop}
              </Button>
            </>
          )}
          <Phase view={walk.data ?? null} mine={view !== null} />
        </div>
      </section>
      <aside className="walk-side follow" aria-label={msg.results}>
        {view ? (
          <WalkFollow view={view} name={detection.name} />
        ) : (
          <p className="quiet">{msg.theTriggerAndIts(check.by.how === 'person')}</p>
        )}
      </aside>
    </div>
  )
}

/** The plainest check of a detection that somebody can walk. */
const plainCheck = (
  camera: string,
  detection: OneProps['detection'],
  { checks, proposals }: ProvingView
): Check | undefined =>
  [...checks, ...proposals].find(
    (c) =>
      c.camera === camera &&
      c.check.detection === detection.id &&
      c.check.about === 'passes' &&
      c.check.by.how === 'walk' &&
      c.check.expect.what === 'trigger'
  )?.check

/** A walk to begin with: that of the plainest check, now. */
function ownWalk(camera: string, detection: OneProps['detection'], proving: ProvingView): Check {
  const bare = {
    ...newCheck(detection, proving.scenes[camera] ?? null, null, []),
    name: msg.customWalk
  }
  const plain = plainCheck(camera, detection, proving)
  return plain ? { ...bare, by: plain.by, expect: plain.expect, effects: [] } : bare
}

function Phase({ view, mine }: { view: WalkTestView | null; mine: boolean }): ReactNode {
  const [now, setNow] = useState(() => Date.now())
  const walking = view?.state === 'walking'
  useEffect(() => {
    if (!walking) return
    const timer = setInterval(() => setNow(Date.now()), 100)
    return () => clearInterval(timer)
  }, [walking])
  if (!view || (!mine && !isRunning(view))) return null
  const since =
    view.beganAt === null ? 0 : Math.min(view.seconds, Math.max(0, (now - view.beganAt) / 1000))
  const words = {
    preparing: msg.preparingTheScene,
    walking: msg.ofS(since.toFixed(1), view.seconds),
    settling: msg.walkedWaitingForThe,
    done: msg.done,
    stopped: msg.stoppedWithoutAResult,
    failed: msg.theWalkFailed
  }[view.state]
  return (
    <span className="walk-phase">
      {walking && (
        <Progress
          percent={(100 * since) / view.seconds}
          showInfo={false}
          size={[220, 8]}
          strokeColor="var(--accent)"
          aria-label={msg.whatIsWalked}
        />
      )}
      <span role="status" className="figures">
        {words}
        {!mine && msg.of(wordsOf(view.check.name))}
      </span>
    </span>
  )
}
