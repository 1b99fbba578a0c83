import './phone.css'
import '../prove/prove.css'
import { common } from '../../core/messages/en/common.ts'
import { minuteOfDay } from '../../core/messages/format.ts'
import { phonePlace as msg } from '../../core/messages/en/prove/phone.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { wordsOf } from '../../core/messages/words.ts'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Alert, App, Button } from 'antd'
import { useEffect, useMemo, type ReactNode } from 'react'
import { ApiError } from '../../core/apiError.ts'
import type { PhoneView } from '../../core/proving/phone.ts'
import { request } from '../api/client.ts'
import { WatchStream } from '../scene/liveStream.ts'
import { expectedWords } from '../prove/words.ts'
import { WalkLive } from '../prove/walk/WalkLive.tsx'
import { useWalk, useWalkDoes } from '../prove/walk/useWalk.ts'

const LOOK_MS = 10_000
const PATH = '/api/phone'
/** The code stands behind the address's `#`: it is sent to no server but in the body of a request. */
const code = location.hash.slice(1)

/** One walk test on a phone that was let in by a code. */
export function PhonePlace(): ReactNode {
  const phone = useQuery({
    queryKey: ['phone'],
    queryFn: async () => {
      // Used once: a page that is loaded again is let in by its cookie.
      if (location.hash) {
        await request('POST', PATH, { token: code })
        history.replaceState(null, '', '/phone')
      }
      return request<PhoneView>('GET', PATH)
    },
    retry: false,
    refetchInterval: ({ state }) => (isOut(state.error) ? false : LOOK_MS)
  })
  if (isOut(phone.error))
    return phone.data ? (
      <Over title={msg.ended} words={msg.endedHere} />
    ) : code ? (
      <Over title={msg.cannotOpen} words={problemWords(phone.error)} />
    ) : (
      <Over title={msg.onlyOneWalk} words={msg.howToGetOne} />
    )
  if (phone.data) return <OneWalk phone={phone.data} />
  if (phone.error)
    return <Alert className="notice" type="error" showIcon title={problemWords(phone.error)} />
  return <p className="waiting">{msg.opening}</p>
}

const isOut = (error: unknown): boolean =>
  error instanceof ApiError && [401, 403, 404].includes(error.status)

function Over({ title, words }: { title: string; words: string }): ReactNode {
  return (
    <main className="empty-place">
      <h1>{title}</h1>
      <p>{words}</p>
    </main>
  )
}

function OneWalk({ phone }: { phone: PhoneView }): ReactNode {
  const { camera, check, detection, site, unheld } = phone
  const queries = useQueryClient()
  const { message } = App.useApp()
  const walk = useWalk(`${PATH}/walk`)
  const does = useWalkDoes(`${PATH}/walk`)
  const stream = useMemo(() => new WatchStream(`${PATH}/stream`), [])
  useEffect(() => stream.run(), [stream])
  // Revoked while a walk is followed: said at once, not at the next look.
  const out = isOut(walk.error)
  useEffect(() => {
    if (out) void queries.invalidateQueries({ queryKey: ['phone'] })
  }, [out, queries])
  const end = async (): Promise<void> => {
    try {
      await request('DELETE', PATH)
      await queries.invalidateQueries({ queryKey: ['phone'] })
    } catch (problem) {
      void message.error(problemWords(problem))
    }
  }
  const view = walk.data?.check.id === check.id ? walk.data : null
  return (
    <main className="phone-walk">
      <header>
        <h1>{wordsOf(check.name)}</h1>
        <p className="quiet">
          {site.name} · {camera.name} · {detection.name}
        </p>
        <p>
          {common.expected}: {expectedWords(check)}
        </p>
      </header>
      {check.by.how === 'person' && <p className="person-words">{check.by.words}</p>}
      <div className="walk-body">
        <WalkLive
          camera={camera}
          detection={detection}
          detections={[detection]}
          unheld={unheld ? [detection.id] : []}
          check={check}
          walk={walk.data ?? null}
          view={view}
          does={does}
          stream={stream}
          ready
        />
        <p className="phone-end">
          <span className="quiet">
            {msg.accessOf(phone.by, minuteOfDay(phone.expiresAt, site.timeZone))}
          </span>
          <Button onClick={() => void end()}>{msg.endAccess}</Button>
        </p>
      </div>
    </main>
  )
}
