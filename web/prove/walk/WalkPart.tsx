import { wordsOf } from '../../../core/messages/words.ts'
import { problemWords } from '../../../core/messages/errorWords.ts'
import { common } from '../../../core/messages/en/common.ts'
import { walkPart as msg } from '../../../core/messages/en/prove/walk.ts'
import './walk.css'
import '../prove.css'
import { useQuery } from '@tanstack/react-query'
import { Alert, App, Button, Select } from 'antd'
import { useEffect, useMemo, useState, type ReactNode } from 'react'
import { Link, useSearchParams } from 'react-router'
import type { SiteActionsView } from '../../../core/api.ts'
import type { Check } from '../../../core/formats/check.ts'
import type { SavedCheck, ProvingView } from '../../../core/proving/views.ts'
import type { WatchView } from '../../../core/watch/views.ts'
import { readScene } from '../../../simulation/script.ts'
import { request } from '../../api/client.ts'
import { EmptyPlace } from '../../shell/EmptyPlace.tsx'
import { useSiteActions } from '../../sync/useSiteDocument.ts'
import { WatchStream, streamOf } from '../../scene/liveStream.ts'
import { newCheck } from '../newCheck.ts'
import { useProving, useRefresh } from '../useProving.ts'
import { PhoneButton } from './PhoneButton.tsx'
import { WalkLive } from './WalkLive.tsx'
import { WalkOrder } from './WalkOrder.tsx'
import { isRunning, useWalk, useWalkDoes, walkOf } from './useWalk.ts'

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
    return <EmptyPlace name={msg.noDetectionsToWalk} what={msg.drawADetectionOnThe} on="bench" />
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
        key={`${camera.id} ${kept?.check.id ?? ''} ${detection.id}`}
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
  // Until it is changed or walked, a walk of one's own is that of the plainest check that is known, which may be worked
  // out only now.
  const plain = kept ? undefined : plainCheck(camera.id, detection, proving)
  const plainText = JSON.stringify(plain)
  const version = kept?.version
  const bare = held === null
  const begun = useMemo(
    () => kept?.check ?? ownWalk(detection, held, plain),
    // What is read again is another object with the same contents.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [version, bare, plainText]
  )
  const [ordered, setCheck] = useState<Check | null>(null)
  const check = ordered ?? begun
  const path = walkOf(camera.id)
  const walk = useWalk(path)
  const does = useWalkDoes(path)
  const refresh = useRefresh()
  const { message } = App.useApp()
  const stream = useMemo(() => new WatchStream(streamOf([camera.id])), [camera.id])
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
  // When it has ended, the list of checks has something new.
  const ended = view?.state === 'done'
  useEffect(() => {
    if (ended) void refresh()
  }, [ended, refresh])
  const shown = watch.cameras.find((c) => c.id === camera.id)
  const changed = kept !== null && JSON.stringify(kept.check) !== JSON.stringify(check)
  const keep = async (): Promise<void> => {
    try {
      await request('PUT', `/cameras/${camera.id}/checks/${check.id}`, { check, version: 0 })
      await refresh()
      void message.success(msg.addedToTheChecks(wordsOf(check.name)))
    } catch (error) {
      void message.error(problemWords(error))
    }
  }
  const walkableNow = check.by.how !== 'walk' || scene !== null
  return (
    <div className="walk-body">
      <aside className="walk-side" aria-label={msg.whatIsWalked}>
        <h2>{wordsOf(check.name)}</h2>
        {!kept && !ordered && !plain && proving.proposing > 0 && (
          <p className="quiet" role="status">
            {msg.workingOutThePath}
          </p>
        )}
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
            <Button size="small" onClick={() => setCheck(null)}>
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
        <span className="at-a-desk">
          <PhoneButton camera={camera.id} check={check} disabled={!walkableNow} />
        </span>
      </aside>
      <WalkLive
        camera={camera}
        detection={detection}
        detections={shown?.detections.filter((d) => d.id === detection.id) ?? null}
        unheld={shown?.unheld ?? []}
        check={check}
        walk={walk.data ?? null}
        view={view}
        does={{
          ...does,
          start: (walked) => {
            setCheck(walked)
            return does.start(walked)
          }
        }}
        stream={stream}
        ready={walkableNow}
      />
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
function ownWalk(
  detection: OneProps['detection'],
  scene: { painted: boolean } | null,
  plain: Check | undefined
): Check {
  const bare = { ...newCheck(detection, scene, null, []), name: msg.customWalk }
  return plain ? { ...bare, by: plain.by, expect: plain.expect, effects: [] } : bare
}
