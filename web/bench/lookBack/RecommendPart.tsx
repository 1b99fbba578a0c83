import { tune as msg } from '../../../core/messages/en/bench/lookBack.ts'
import './lookBack.css'
import { Alert, Button, Progress } from 'antd'
import { useEffect, useRef, useState, type ReactNode } from 'react'
import { problemWords, saidOfField } from '../../../core/messages/errorWords.ts'
import { said, type Said } from '../../../core/messages/said.ts'
import { wordsOf } from '../../../core/messages/words.ts'
import type { Detection } from '../../../core/formats/plan.ts'
import { changesOf } from '../../../core/tuning/recommend/changes.ts'
import type { RecommendView } from '../../../core/marks/views.ts'
import { changeOnDevices, type ChangeOnDevice } from '../../../core/devices/changeOnDevices.ts'
import { lossWords } from '../../devices/words.tsx'
import { useDevices } from '../../devices/useDevices.ts'
import { requestLines } from '../../api/lines.ts'
import { useContents } from '../contexts.ts'
import { useDrawn } from './drawn.ts'

type Line = { share: number } | { found: RecommendView } | { error: Said | string }

/** Looks for settings that keep what is wanted and leave the fewest nuisances. */
export function RecommendPart({ detection }: { detection: Detection }): ReactNode {
  const { view, document, scene, schedules } = useContents()
  const drawn = useDrawn(detection)
  const [share, setShare] = useState<number | null>(null)
  const [found, setFound] = useState<{ of: Detection; is: RecommendView } | null>(null)
  const [error, setError] = useState<string | null>(null)
  const [taken, setTaken] = useState(false)
  const running = useRef<AbortController | null>(null)
  useEffect(() => () => running.current?.abort(), [])

  const ask = async (): Promise<void> => {
    const stop = (running.current = new AbortController())
    setShare(0)
    setFound(null)
    setError(null)
    setTaken(false)
    try {
      await requestLines<Line>(
        `/cameras/${encodeURIComponent(view.camera.id)}/look-back/recommend`,
        { ...drawn, detection: { ...detection, note: undefined } },
        (line) => {
          if ('share' in line) setShare(line.share)
          else if ('found' in line) setFound({ of: detection, is: line.found })
          else setError(saidOfField(line.error))
        },
        stop.signal
      )
    } catch (problem) {
      if (!stop.signal.aborted) setError(problemWords(problem))
    } finally {
      if (running.current === stop) setShare(null)
    }
  }
  const stop = (): void => {
    running.current?.abort()
    setShare(null)
  }
  const take = ({ settings, ignore }: RecommendView): void => {
    document.retune(
      withSettings(detection, settings),
      { ...scene, ignore },
      said('edits.retune', detection.name)
    )
    setTaken(true)
  }
  const changes = found ? changesOf(found.of, found.is, scene.ignore.length) : []
  const { data: devices } = useDevices(changes.length > 0)
  const onDevices =
    found && devices
      ? changeOnDevices(
          found.of,
          withSettings(found.of, found.is.settings),
          view.camera.id,
          devices,
          schedules
        )
      : []
  return (
    <>
      {share === null ? (
        <Button size="small" onClick={() => void ask()}>
          {msg.recommend}
        </Button>
      ) : (
        <div className="row" aria-live="polite">
          <Progress percent={Math.round(100 * share)} size="small" showInfo={false} />
          <span className="quiet">{msg.looking(share)}</span>
          <Button size="small" onClick={stop}>
            {msg.stop}
          </Button>
        </div>
      )}
      {error && <Alert type="error" title={error} />}
      {found && (
        <div className="recommended">
          <p>{wordsOf(found.is.reason)}</p>
          {changes.length > 0 && (
            <>
              <h4>{msg.changes}</h4>
              <ul aria-label={msg.changes}>
                {changes.map((change, i) => (
                  <li key={i}>{wordsOf(change)}</li>
                ))}
              </ul>
              {onDevices.map(({ device, losses }, i) => (
                <OnDevice
                  key={`${device} ${i}`}
                  device={device}
                  losses={losses}
                  areas={JSON.stringify(found.is.ignore) !== JSON.stringify(scene.ignore)}
                />
              ))}
              <p className="quiet">
                {msg.keeps(found.is.kept, found.is.wanted, found.is.gone, found.is.nuisances)}
              </p>
              <p className="quiet">{msg.unmarkedAfter(found.is.unmarked, found.is.now.unmarked)}</p>
              {taken ? (
                <p>{msg.taken}</p>
              ) : (
                <Button size="small" type="primary" onClick={() => take(found.is)}>
                  {msg.takeAll}
                </Button>
              )}
            </>
          )}
        </div>
      )}
    </>
  )
}

/** What one device of the camera makes of what is proposed. */
function OnDevice({
  device,
  losses,
  areas
}: ChangeOnDevice & {
  /** Ignore areas change: these are never sent. */
  areas: boolean
}): ReactNode {
  if (!losses.length && !areas) return <p className="quiet">{msg.deviceTakes(device)}</p>
  return (
    <>
      <p className="quiet">{msg.deviceTakesNot(device)}</p>
      <ul aria-label={msg.deviceTakesNot(device)}>
        {losses.map((loss) => (
          <li key={loss.setting}>{lossWords({ ...loss, elsewhere: null })}</li>
        ))}
        {areas && <li>{msg.noAreas}</li>}
      </ul>
    </>
  )
}

/** A setting that is null is taken away. */
const withSettings = (detection: Detection, settings: RecommendView['settings']): Detection =>
  Object.fromEntries(
    Object.entries({ ...detection, ...settings }).filter(([, value]) => value !== null)
  ) as unknown as Detection
