import { wordsOf } from '../../../core/messages/words.ts'
import { problemWords } from '../../../core/messages/errorWords.ts'
import { common } from '../../../core/messages/en/common.ts'
import { walkPart as msg } from '../../../core/messages/en/prove/walk.ts'
import './walk.css'
import { CaretRightOutlined, StopOutlined } from '@ant-design/icons'
import { App, Button, Progress } from 'antd'
import { useEffect, useState, type ReactNode } from 'react'
import type { Check } from '../../../core/formats/check.ts'
import type { Detection } from '../../../core/formats/plan.ts'
import type { WalkTestView } from '../../../core/proving/live.ts'
import { LiveTile } from '../../scene/LiveTile.tsx'
import type { WatchStream } from '../../scene/liveStream.ts'
import { WalkFollow } from './WalkFollow.tsx'
import { useAwake } from './useAwake.ts'
import { isRunning, type WalkDoes } from './useWalk.ts'

interface Props {
  camera: { id: string; name: string }
  detection: Pick<Detection, 'id' | 'name'>
  /** What is drawn over the picture; null: the camera is not shown. */
  detections: readonly Detection[] | null
  unheld: readonly string[]
  check: Check
  /** The newest walk before the camera; null: there was none. */
  walk: WalkTestView | null
  /** The same, where it is this one. */
  view: WalkTestView | null
  does: WalkDoes
  stream: WatchStream
  /** Whether it can be started. */
  ready: boolean
}

/** The live picture of a walk with what starts and ends it, and what came of it. */
export function WalkLive({
  camera,
  detection,
  detections,
  unheld,
  check,
  walk,
  view,
  does,
  stream,
  ready
}: Props): ReactNode {
  const { message } = App.useApp()
  const going = isRunning(walk)
  useAwake(going)
  const act = async (work: () => Promise<unknown>): Promise<void> => {
    try {
      await work()
    } catch (error) {
      void message.error(problemWords(error))
    }
  }
  return (
    <>
      <section className="walk-live" aria-label={common.live}>
        {detections && (
          <LiveTile
            stream={stream}
            camera={camera.id}
            name={camera.name}
            detections={detections}
            unheld={unheld}
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
              disabled={!ready}
              onClick={() => void act(() => does.start(check))}
            >
              {check.by.how === 'person'
                ? msg.startWalk
                : view?.verdict
                  ? msg.walkAgain
                  : msg.whatIsWalked}
            </Button>
          )}
          {going && walk && (
            <>
              {walk.how === 'person' && walk.state === 'walking' && (
                <Button onClick={() => void act(does.finish)}>{msg.finishWalk}</Button>
              )}
              <Button icon={<StopOutlined aria-hidden />} onClick={() => void act(does.stop)}>
                {common.stop}
              </Button>
            </>
          )}
          <Phase view={walk} mine={view !== null} />
        </div>
      </section>
      <aside className="walk-side follow" aria-label={msg.results}>
        {view ? (
          <WalkFollow view={view} name={detection.name} />
        ) : (
          <p className="quiet">{msg.theTriggerAndIts(check.by.how === 'person')}</p>
        )}
      </aside>
    </>
  )
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
