import { marking as msg } from '../../../core/messages/en/bench/lookBack.ts'
import './lookBack.css'
import { Alert, Button, Select } from 'antd'
import { useState, type ReactNode } from 'react'
import { problemWords } from '../../../core/messages/errorWords.ts'
import { MARK_WITHIN_SECONDS } from '../../../core/marks/judge.ts'
import { MARK_REASONS, type MarkKind, type MarkReason } from '../../../core/marks/marks.ts'
import { useContents, useOnShow } from '../contexts.ts'
import { UseAsCheck } from './UseAsCheck.tsx'
import { useMarks } from './useMarks.ts'

/** Says of a target at a moment whether it was wanted. */
export function Marking({
  detection,
  target,
  time,
  fired
}: {
  detection: string
  target: number | null
  /** Seconds from the start of what is on show. */
  time: number
  fired: boolean
}): ReactNode {
  const { view } = useContents()
  const { clip, back } = useOnShow()
  const { marks, mark, forget } = useMarks(view.camera.id)
  const [error, setError] = useState<string | null>(null)
  if (!clip) return null
  const ofClip = back ? null : clip.id
  const at = Math.round((back ? clip.start : 0) + 1000 * time)
  const said = marks.find(
    (m) =>
      m.detection === detection &&
      m.clip === ofClip &&
      m.target === target &&
      Math.abs(m.at - at) <= 1000 * MARK_WITHIN_SECONDS
  )
  const doing = (work: Promise<void>): void =>
    void work.then(
      () => setError(null),
      (problem: unknown) => setError(problemWords(problem))
    )
  const say = (kind: MarkKind, reason: MarkReason | null): void =>
    doing(mark({ detection, clip: ofClip, target, at: said?.at ?? at, mark: kind, reason }))
  return (
    <div className="marking" role="group" aria-label={fired ? msg.wasIt : msg.shouldIt}>
      <p className="quiet">{fired ? msg.wasIt : msg.shouldIt}</p>
      <div className="row">
        {(['wanted', 'nuisance'] as const).map((kind) => (
          <Button
            key={kind}
            size="small"
            type={said?.mark === kind ? 'primary' : 'default'}
            aria-pressed={said?.mark === kind}
            onClick={() => say(kind, kind === 'wanted' ? null : (said?.reason ?? null))}
          >
            {msg[kind]}
          </Button>
        ))}
        {said?.mark === 'nuisance' && (
          <Select
            size="small"
            aria-label={msg.why}
            placeholder={msg.why}
            value={said.reason ?? undefined}
            popupMatchSelectWidth={false}
            onChange={(reason) => say('nuisance', reason)}
            options={MARK_REASONS.map((value) => ({ value, label: msg.reasons[value] }))}
          />
        )}
        {said && (
          <Button size="small" type="link" onClick={() => doing(forget(said.id))}>
            {msg.forget}
          </Button>
        )}
      </div>
      {said && (
        <UseAsCheck
          key={`${said.id} ${said.mark}`}
          detection={detection}
          target={target}
          time={(said.at - (back ? clip.start : 0)) / 1000}
          mark={said.mark}
          fired={fired}
        />
      )}
      {error && <Alert type="error" title={error} />}
    </div>
  )
}
