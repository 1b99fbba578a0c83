import { seconds } from '../../../core/messages/format.ts'
import { wordsOf } from '../../../core/messages/words.ts'
import { common } from '../../../core/messages/en/common.ts'
import { walkFollow as msg } from '../../../core/messages/en/prove/walk.ts'
import type { ReactNode } from 'react'
import type { LiveEffect, WalkTestView } from '../../../core/proving/live.ts'
import { LadderView } from '../../scene/LadderView.tsx'
import { Failed, Passed, Pending, Skipped } from '../../words/signs.tsx'

const marks: Record<LiveEffect['state'], ReactNode> = {
  waiting: <Pending />,
  came: <Passed />,
  stayedOut: <Skipped />,
  failed: <Failed />
}
const styles: Record<LiveEffect['state'], string> = {
  waiting: '',
  came: 'is-came',
  stayedOut: '',
  failed: 'is-missing'
}
const came: Partial<Record<LiveEffect['kind'], string>> = msg.came

/** What was expected of the walk, ticked off as it arrives. */
export function WalkFollow({ view, name }: { view: WalkTestView; name: string }): ReactNode {
  const { check, verdict, triggers, effects } = view
  const [first] = triggers
  const silence = check.expect.what === 'silence'
  const over = view.state === 'done' || view.state === 'stopped' || view.state === 'failed'
  const triggerState: LiveEffect['state'] = first
    ? silence
      ? 'failed'
      : 'came'
    : over
      ? silence
        ? 'stayedOut'
        : 'failed'
      : 'waiting'
  return (
    <>
      {verdict && (
        <div className={`walk-verdict ${verdict.outcome}`} role="status">
          <b>
            {verdict.outcome === 'passed' ? <Passed /> : <Failed />}{' '}
            {verdict.outcome === 'passed' ? msg.passed : msg.failed}
          </b>
          <p>{wordsOf(verdict.sentence)}</p>
          <p className="quiet">{view.kept ? msg.resultSavedWithThis : msg.resultNotSavedThis}</p>
        </div>
      )}
      {view.error && <p className="is-failed">{wordsOf(view.error)}</p>}
      <section aria-label={msg.results}>
        <h3>{msg.results}</h3>
        <ol className="arrivals">
          <li className={styles[triggerState]}>
            <span>{marks[triggerState]}</span>
            <span>
              {silence ? common.mustNotTrigger : msg.triggerOf(name)}
              <small>
                {first
                  ? msg.atSOfTheWalk(first.time.toFixed(1), triggers.length)
                  : over
                    ? silence
                      ? msg.noTrigger
                      : msg.noTrigger
                    : msg.notYet}
              </small>
            </span>
          </li>
          {effects.map((e) => (
            <li
              key={e.endpoint}
              className={styles[silence && e.state === 'failed' ? 'stayedOut' : e.state]}
            >
              <span>{marks[silence && e.state === 'failed' ? 'stayedOut' : e.state]}</span>
              <span>
                {e.name}
                <small>{effectWords(e)}</small>
              </span>
              {e.after !== null && <span className="figures">{msg.s(e.after.toFixed(1))}</span>}
            </li>
          ))}
        </ol>
        {!effects.length && view.beganAt !== null && (
          <p className="quiet">{msg.hasNoActions(name)}</p>
        )}
        {view.others.length > 0 && (
          <p className="quiet">
            {msg.alsoTriggered(
              view.others.map((o) => msg.otherAt(o.name, seconds(o.time))).join(', ')
            )}
          </p>
        )}
      </section>
      {view.ladder ? (
        <LadderView
          ladder={view.ladder}
          who={view.targets === 1 ? msg.thisTarget : msg.theNearestOfTargets(view.targets)}
        />
      ) : (
        view.beganAt !== null && <p className="quiet">{msg.theCameraReportsNobodyYet}</p>
      )}
    </>
  )
}

function effectWords(e: LiveEffect): string {
  if (e.state === 'came')
    return msg.arrived(came[e.kind] ?? msg.done, e.by === 'camera', e.expected)
  if (e.state === 'stayedOut') return msg.didNotRunAs(e.words ? `: ${wordsOf(e.words)}` : '')
  if (e.state === 'failed') return e.words === null ? msg.didNotCome : wordsOf(e.words)
  return e.expected ? msg.waiting : msg.unexpected(e.words ? `: ${wordsOf(e.words)}` : '')
}
