import { capital } from '../../../core/messages/format.ts'
import { wordsOf } from '../../../core/messages/words.ts'
import { common } from '../../../core/messages/en/common.ts'
import { changePanel as msg } from '../../../core/messages/en/bench/inspector.ts'
import { Button } from 'antd'
import { useEffect, useMemo, useState, type ReactNode } from 'react'
import type { ClipView } from '../../../core/api.ts'
import type { Setting } from '../../../core/detections/index.ts'
import type { Effect } from '../../../core/tuning/change.ts'
import { useAllClips } from '../clips/useAllClips.ts'
import type { BenchDocument } from '../document.ts'
import type { Evaluations } from '../evaluation.ts'
import type { GateChange } from '../../../core/tuning/candidates.ts'

export interface ChangePanelProps {
  document: BenchDocument
  evaluations: Evaluations
  setting: Setting
  clips: readonly ClipView[]
  clip: ClipView
  detection: string
  target: number
  /** Whether the target triggers the detection; then it is to be kept out. */
  fired: boolean
}

/** As a sentence begins, and with no figure parted from its unit. */
const figuresTogether = (words: string): string =>
  capital(words)
    .replace(/(\d) (s|m|%|×)(?= |$)/g, '$1\u00a0$2')
    .replace(/× (\d)/g, '×\u00a0$1')

/** What it costs in words: the triggers that come and go on all clips. */
interface Cost {
  gained: string[]
  lost: string[]
}

/**
 * The smallest change to a single gate that would have let the target through, or kept it out, and
 * what else it would do.
 */
export function ChangePanel({ fired, ...ask }: ChangePanelProps): ReactNode {
  const [open, setOpen] = useState(false)
  if (!open)
    return (
      <Button size="small" onClick={() => setOpen(true)}>
        {msg.suggestAChange}
      </Button>
    )
  return <Changes {...ask} fired={fired} onClose={() => setOpen(false)} />
}

function Changes({
  document,
  evaluations,
  setting,
  clips,
  clip,
  detection,
  target,
  fired,
  onClose
}: ChangePanelProps & { onClose: () => void }): ReactNode {
  const question = useMemo(
    () => ({ type: 'changes' as const, setting, detection, target }),
    [setting, detection, target]
  )
  const [answered, setAnswered] = useState<{ to: object; changes: GateChange[] } | null>(null)
  const changes = answered?.to === question ? answered.changes : null
  // With the changes that they are of: a new list comes before its effects do.
  const [found, setFound] = useState<{ of: GateChange[]; effects: Effect[][] } | null>(null)
  const effects = found?.of === changes ? found?.effects : null
  const others = useMemo(() => clips.filter((c) => c.id !== clip.id), [clips, clip.id])
  const { known, all } = useAllClips(others, evaluations, true)

  useEffect(() => {
    evaluations.ask(question, (answer) => {
      if (answer.type === 'changes') setAnswered({ to: question, changes: answer.changes })
    })
  }, [evaluations, question])

  useEffect(() => {
    if (!changes?.length || !all) return
    evaluations.ask(
      {
        type: 'effects',
        clips: [{ clip: null, of: clip }, ...known.map((c) => ({ clip: c.id, of: c }))].map(
          ({ clip: id, of }) => ({
            clip: id,
            before: settingOf(setting, of, null),
            after: changes.map((change) => settingOf(setting, of, change))
          })
        )
      },
      (answer) => {
        if (answer.type === 'effects') setFound({ of: changes, effects: answer.effects })
      }
    )
  }, [evaluations, setting, changes, known, all, clip])

  const costs = useMemo(
    () =>
      changes?.map(
        (change, i) =>
          effects &&
          costOf(
            effects.map((of) => of[i]!),
            [clip, ...known],
            change.detection.id,
            target
          )
      ),
    [changes, effects, clip, known, target]
  )
  return (
    <section className="changes" aria-label={msg.suggestedChanges} aria-live="polite">
      <header className="row">
        <h3>{fired ? msg.toStopItOne : msg.toTriggerOneOf}</h3>
        <Button size="small" type="text" onClick={onClose}>
          {common.close}
        </Button>
      </header>
      {changes === null && <p className="quiet">{msg.tryingEachGate}</p>}
      {changes?.length === 0 && <p className="quiet">{msg.noSingleChangeIs}</p>}
      <ol>
        {changes?.map((change, i) => (
          <li key={`${change.gate} ${wordsOf(change.words)}`}>
            <span className="row">
              <strong>{figuresTogether(wordsOf(change.words))}</strong>
              <Button size="small" onClick={() => apply(document, change)}>
                {msg.doIt}
              </Button>
            </span>
            <CostNote cost={costs?.[i] ?? null} clips={1 + known.length} />
          </li>
        ))}
      </ol>
    </section>
  )
}

function apply(document: BenchDocument, { detection, schedule, words }: GateChange): void {
  if (schedule) document.editSchedule(schedule, words)
  else document.edit(detection, words)
}

function CostNote({ cost, clips }: { cost: Cost | null; clips: number }): ReactNode {
  if (!cost) return <span className="quiet">{msg.testingOnClips(clips)}</span>
  const on = clips === 1 ? msg.onThisClip : msg.onAllClips(clips)
  if (!cost.gained.length && !cost.lost.length)
    return <span className="quiet">{msg.nothingElseChanges(on)}</span>
  return (
    <span className="quiet">
      {cost.gained.length > 0 && <>{msg.alsoTriggers(on, short(cost.gained))} </>}
      {cost.lost.length > 0 && (
        <>
          <b className="failed">{msg.loses}</b> {on}: {short(cost.lost)}.
        </>
      )}
    </span>
  )
}

const MAX_NAMED = 3
const short = (list: string[]): string =>
  list.length <= MAX_NAMED
    ? list.join('; ')
    : msg.andMore(list.slice(0, MAX_NAMED).join('; '), list.length - MAX_NAMED)

/** The setting for a clip, with only what a change touches: the detection, or all that share its hours. */
function settingOf(
  setting: Setting,
  { fps, start, inputs }: ClipView,
  change: GateChange | null
): Setting {
  const detections =
    change && !change.schedule
      ? setting.camera.detections.map((d) => (d.id === change.detection.id ? change.detection : d))
      : setting.camera.detections
  const schedules = change?.schedule
    ? setting.plan.schedules.map((s) => (s.id === change.schedule!.id ? change.schedule! : s))
    : setting.plan.schedules
  return {
    ...setting,
    plan: { ...setting.plan, schedules },
    camera: { ...setting.camera, detections },
    fps,
    start,
    inputs
  }
}

function costOf(
  effects: readonly Effect[],
  clips: readonly ClipView[],
  detection: string,
  target: number
): Cost {
  const cost: Cost = { gained: [], lost: [] }
  effects.forEach(({ gained, lost }, i) => {
    const where = i === 0 ? '' : msg.of(clips[i]!.name)
    for (const [list, to] of [
      [gained, cost.gained],
      [lost, cost.lost]
    ] as const)
      for (const t of list) {
        // The trigger that was asked about is not a cost.
        if (
          i === 0 &&
          t.detection === detection &&
          (t.target === target || t.targets?.includes(target))
        )
          continue
        to.push(msg.atS(t.target, t.time.toFixed(1), where))
      }
  })
  return cost
}
