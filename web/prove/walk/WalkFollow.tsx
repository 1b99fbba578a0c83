import type { ReactNode } from 'react'
import type { LiveEffect, WalkTestView } from '../../../core/proving/live.ts'
import { LadderView } from '../../scene/LadderView.tsx'

const marks: Record<LiveEffect['state'], string> = {
  waiting: '…',
  came: '✓',
  'stayed out': '–',
  failed: '✕'
}
const styles: Record<LiveEffect['state'], string> = {
  waiting: '',
  came: 'is-came',
  'stayed out': '',
  failed: 'is-missing'
}
const came: Partial<Record<LiveEffect['kind'], string>> = {
  strobe: 'lit',
  speaker: 'played',
  relay: 'switched',
  buzzer: 'sounding',
  email: 'in the mail server’s hands',
  station: 'acknowledged by the station',
  webhook: 'taken',
  popup: 'shown',
  recording: 'recording',
  snapshots: 'taken'
}

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
        ? 'stayed out'
        : 'failed'
      : 'waiting'
  return (
    <>
      {verdict && (
        <div className={`walk-verdict ${verdict.outcome}`} role="status">
          <b>
            <span aria-hidden="true">{verdict.outcome === 'passed' ? '✓' : '✕'}</span>{' '}
            {verdict.outcome === 'passed' ? 'As expected' : 'Not as expected'}
          </b>
          <p>{verdict.sentence}</p>
          <p className="quiet">
            {view.kept
              ? 'Kept as a proof of this check.'
              : 'Not kept: the walk is not a check that is kept, or was changed for this time.'}
          </p>
        </div>
      )}
      {view.error && <p className="is-failed">{view.error}</p>}
      <section aria-label="What arrives">
        <h3>What arrives</h3>
        <ol className="arrivals">
          <li className={styles[triggerState]}>
            <span aria-hidden="true">{marks[triggerState]}</span>
            <span>
              {silence ? 'Silence' : `Trigger of ${name}`}
              <small>
                {first
                  ? `at ${first.time.toFixed(1)} s of the walk${triggers.length > 1 ? `, ${triggers.length} in all` : ''}`
                  : over
                    ? silence
                      ? 'nothing triggered'
                      : 'none came'
                    : 'not yet'}
              </small>
            </span>
          </li>
          {effects.map((e) => (
            <li
              key={e.endpoint}
              className={styles[silence && e.state === 'failed' ? 'stayed out' : e.state]}
            >
              <span aria-hidden="true">
                {marks[silence && e.state === 'failed' ? 'stayed out' : e.state]}
              </span>
              <span>
                {e.name}
                <small>{effectWords(e)}</small>
              </span>
              {e.after !== null && <span className="figures">+{e.after.toFixed(1)} s</span>}
            </li>
          ))}
        </ol>
        {!effects.length && view.beganAt !== null && (
          <p className="quiet">{name} sets nothing off: it is linked to nothing.</p>
        )}
        {view.others.length > 0 && (
          <p className="quiet">
            Meanwhile also:{' '}
            {view.others.map((o) => `${o.name} at ${o.time.toFixed(1)} s`).join(', ')}.
          </p>
        )}
      </section>
      {view.ladder ? (
        <LadderView
          ladder={view.ladder}
          who={view.targets === 1 ? 'this target' : `the nearest of ${view.targets} targets`}
        />
      ) : (
        view.beganAt !== null && <p className="quiet">The camera reports nobody yet.</p>
      )}
    </>
  )
}

function effectWords(e: LiveEffect): string {
  if (e.state === 'came')
    return `${came[e.kind] ?? 'came'}${e.by === 'camera' ? ', by the camera itself' : ''}${e.expected ? '' : '; it was expected not to be'}`
  if (e.state === 'stayed out') return `not set off, as expected${e.words ? `: ${e.words}` : ''}`
  if (e.state === 'failed') return e.words ?? 'did not come'
  return e.expected ? 'waited for' : `not expected${e.words ? `: ${e.words}` : ''}`
}
