import { atSite } from '../api/here.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { wordsOf } from '../../core/messages/words.ts'
import { alarmEvidence as msg } from '../../core/messages/en/watch.ts'
import { shapeOf } from '../../core/kinds/schemas.ts'
import { keepPreviousData, useQueries, useQuery } from '@tanstack/react-query'
import { Alert, Image } from 'antd'
import { useEffect, useRef, useState, type ReactNode } from 'react'
import type { AlarmView, EvidenceView } from '../../core/api.ts'
import type { FoundTrigger, SearchView } from '../../core/watch/search.ts'
import type { TriggerExplanation } from '../../core/watch/explanation.ts'
import { LadderView } from '../scene/LadderView.tsx'
import { useClock } from '../words/useClock.ts'
import { request } from '../api/client.ts'
import { railWords } from '../../core/kinds/names.ts'

const FILED = ['recording', 'snapshots']
const MOST = 6
/** While a device still records, or its recording is being read. */
const ASK_MS = 1000
/** After a device did not give it. */
const AGAIN_MS = 15_000
/** What the camera reported around a trigger is written down a few seconds after it. */
const WRITTEN_MS = 8000

/** What is kept of an alarm: the pictures of its triggers' moments, its recordings and snapshots. */
export function AlarmEvidence({ alarm: a }: { alarm: AlarmView }): ReactNode {
  const clock = useClock()
  const found = useQuery({
    queryKey: ['triggers', a.id, a.triggers],
    queryFn: () => request<SearchView>('GET', `/triggers?alarm=${a.id}`),
    // A film that is being watched goes on while the next trigger joins the alarm.
    placeholderData: keepPreviousData
  })
  const filed = withFirst(a.deliveries.filter((d) => FILED.includes(d.kind) && d.state === 'sent'))
  const files = useQueries({
    queries: filed.map((d) => ({
      queryKey: ['files', d.id],
      queryFn: () => request<EvidenceView>('GET', `/deliveries/${d.id}/files`),
      staleTime: Infinity,
      refetchInterval: ({ state: { data } }: { state: { data?: EvidenceView } }) =>
        data?.recording ? (data.recording.state === 'failed' ? AGAIN_MS : ASK_MS) : false
    }))
  })
  const triggers = found.data?.triggers.slice(0, MOST) ?? []
  if (found.error && !found.data)
    return <Alert type="error" showIcon title={problemWords(found.error)} />
  if (!triggers.length) return null
  const kept = filed.flatMap((d, i) =>
    (files[i]!.data?.files ?? []).map((f) => ({
      ...f,
      src: atSite(`/deliveries/${d.id}/files/${encodeURIComponent(f.name)}`),
      of: d.name,
      at: d.createdAt
    }))
  )
  return (
    <section className="alarm-evidence" aria-label={msg.evidence}>
      <Image.PreviewGroup>
        <div className="evidence-pictures">
          {triggers.map((t) => (
            <Moment key={t.id} trigger={t} />
          ))}
          {kept
            .filter((f) => f.type.startsWith('image/'))
            .map((f) => (
              <Image key={f.src} src={f.src} alt={`${f.of}, ${f.name}`} width={98} height={55} />
            ))}
        </div>
      </Image.PreviewGroup>
      <Account key={triggers[0]!.id} trigger={triggers[0]!} />
      {kept
        .filter((f) => f.type.startsWith('video/'))
        .map((f) => (
          <figure key={f.src} className="evidence-film">
            <video src={f.src} controls preload="metadata" aria-label={`${f.of}, ${f.name}`} />
            <figcaption className="quiet">{msg.of(f.of, clock.time(f.at))}</figcaption>
          </figure>
        ))}
      {filed.map((d, i) => {
        const recording = files[i]!.data?.recording
        return (
          recording && (
            <p
              key={d.id}
              className={recording.state === 'failed' ? 'failed' : 'quiet'}
              role="status"
            >
              {recordingWords(msg.of(d.name, clock.time(d.createdAt)), recording)}
            </p>
          )
        )
      })}
    </section>
  )
}

/**
 * Of many the first one, which stays while newer ones come and takes its turn before them: how it began is seen however
 * slowly a device gives what it has recorded. Then the newest ones.
 * @param list newest first
 */
const withFirst = <T,>(list: readonly T[]): readonly T[] =>
  list.length > MOST ? [list.at(-1)!, ...list.slice(0, MOST - 1)] : list

function recordingWords(name: string, recording: NonNullable<EvidenceView['recording']>): string {
  if (recording.state === 'running')
    return msg.theDeviceStill(name, Math.ceil(recording.secondsLeft))
  return recording.state === 'reading'
    ? msg.readingFromTheDevice(name)
    : msg.couldNotBeRead(name, wordsOf(recording.why))
}

/**
 * The way of the target over the picture of its moment, the gates that let it through, the settings
 * as they were then.
 */
function Account({ trigger: fired }: { trigger: FoundTrigger }): ReactNode {
  const { id: trigger, at: firedAt } = fired
  const picture = useMoment(fired)
  const [fresh, setFresh] = useState(() => Date.now() - firedAt < WRITTEN_MS)
  useEffect(() => {
    if (!fresh) return
    const timer = setTimeout(() => setFresh(false), WRITTEN_MS)
    return () => clearTimeout(timer)
  }, [fresh])
  const account = useQuery({
    queryKey: ['account', trigger],
    queryFn: () => request<TriggerExplanation>('GET', `/triggers/${trigger}/account`),
    refetchInterval: ({ state: { data } }) => (data && !data.path.length && fresh ? ASK_MS : false)
  }).data
  if (!account) return null
  const { path, ladder, words, detection, hours } = account
  const flat = path.map((p) => `${(100 * p.x).toFixed(2)},${(56.25 * p.y).toFixed(2)}`).join(' ')
  const at = path.reduce<(typeof path)[number] | null>(
    (best, p) => (!best || Math.abs(p.at) < Math.abs(best.at) ? p : best),
    null
  )
  const shape = shapeOf(detection)
  const shapeFlat = shape?.map(([x, y]) => `${100 * x},${56.25 * y}`).join(' ')
  return (
    <>
      {path.length > 0 && (
        <figure className="evidence-path">
          <img {...picture} alt="" />
          <svg
            viewBox="0 0 100 56.25"
            preserveAspectRatio="none"
            role="img"
            aria-label={msg.theWayOfTheTarget((-path[0]!.at).toFixed(0))}
          >
            {shapeFlat &&
              ('zone' in detection ? (
                <polygon className="shape" points={shapeFlat} />
              ) : (
                <polyline className="shape" points={shapeFlat} />
              ))}
            <polyline className="halo" points={flat} />
            <polyline points={flat} />
            {at && <circle cx={100 * at.x} cy={56.25 * at.y} r="1.2" />}
          </svg>
          <figcaption className="quiet">
            {msg.pathFromSBefore((-path[0]!.at).toFixed(1))}
            {path.at(-1)!.at > 0.5 && msg.toSAfterIt(path.at(-1)!.at.toFixed(1))}
          </figcaption>
        </figure>
      )}
      {ladder && <LadderView ladder={ladder} who={msg.thisTarget} />}
      {words && (
        <p className="quiet">{wordsOf(fresh && !path.length ? msg.workingOutThePath : words)}</p>
      )}
      <details className="settings-then">
        <summary>{msg.settingsAtTheTime}</summary>
        <p>{railWords(detection, hours ? [hours] : [], []).join(detection.name)}</p>
      </details>
    </>
  )
}

const NO_PICTURE =
  "data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 98 55'%3E%3Crect width='98' height='55' fill='%2311161c'/%3E%3Ctext x='49' y='31' fill='%2398a3af' font-size='9' text-anchor='middle'%3ENo picture%3C/text%3E%3C/svg%3E"

/**
 * The picture of a trigger's moment; of one that has just come it is asked for again until it has
 * been written down.
 */
function useMoment({ id, at }: FoundTrigger): { src: string; onError: () => void } {
  const [attempt, setAttempt] = useState(0)
  const again = useRef<ReturnType<typeof setTimeout>>(undefined)
  useEffect(() => () => clearTimeout(again.current), [])
  const onError = (): void => {
    if (Date.now() - at < WRITTEN_MS)
      again.current = setTimeout(() => setAttempt((n) => n + 1), ASK_MS)
  }
  return { src: atSite(`/triggers/${id}/picture${attempt ? `?again=${attempt}` : ''}`), onError }
}

function Moment({ trigger: t }: { trigger: FoundTrigger }): ReactNode {
  const { src, onError } = useMoment(t)
  const clock = useClock()
  return (
    <Image
      key={src}
      src={src}
      alt={msg.at(t.name, clock.time(t.at))}
      width={98}
      height={55}
      fallback={NO_PICTURE}
      onError={onError}
    />
  )
}
