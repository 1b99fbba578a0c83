import { wordsOf } from '../../core/messages/words.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { checkPanel as msg } from '../../core/messages/en/prove/prove.ts'
import { CaretRightOutlined, DeleteOutlined, EditOutlined } from '@ant-design/icons'
import { App, Button, Slider } from 'antd'
import { useMemo, useState, type ReactNode } from 'react'
import { useNavigate } from 'react-router'
import type { ClipView, SiteActionsView } from '../../core/api.ts'
import type { Check } from '../../core/formats/check.ts'
import type { Detection } from '../../core/formats/plan.ts'
import type { SavedCheck, ProofResultView, ProvingView } from '../../core/proving/views.ts'
import { readScene } from '../../simulation/script.ts'
import { request } from '../api/client.ts'
import { LadderView } from '../scene/LadderView.tsx'
import { CheckEditor } from './CheckEditor.tsx'
import { CheckStage } from './CheckStage.tsx'
import { useRefresh, useResult } from './useProving.ts'
import { dateAndTime } from '../../core/messages/format.ts'
import { byWords, expectedWords } from './words.ts'
import { Failed, Passed } from '../words/signs.tsx'
import { useDone } from '../words/useDone.tsx'

interface Props {
  kept: SavedCheck
  view: ProvingView
  site: SiteActionsView
  detection: Detection
  editing: boolean
  onEdit: (on: boolean) => void
  onRun: () => void
  running: boolean
}

const CLIP_WAIT_MS = 400

/** One check: the walk, what was expected and what came, the gates at the moment that matters, what followed. */
export function CheckPanel({
  kept,
  view,
  site,
  detection,
  editing,
  onEdit,
  onRun,
  running
}: Props): ReactNode {
  const { check, last, camera } = kept
  const result = useResult(camera, check.id, last?.at ?? null).data
  const held = view.scenes[camera]
  const scene = useMemo(() => (held ? readScene(held.scene) : null), [held])
  const refresh = useRefresh()
  const navigate = useNavigate()
  const { message } = App.useApp()
  const done = useDone()
  const [making, setMaking] = useState(false)
  const verdict = result?.verdict
  const walk = check.by.how === 'walk' ? check.by.walk : null
  const [time, setTime] = useState<number | null>(null)
  const moment = time ?? verdict?.time ?? Math.min(walk?.seconds ?? 0, 3)
  const remove = async (): Promise<void> => {
    try {
      const { version } = await request<{ version: number }>(
        'DELETE',
        `/cameras/${camera}/checks/${check.id}?version=${kept.version}`
      )
      await refresh()
      done(msg.deleted(wordsOf(check.name)), () =>
        request('PUT', `/cameras/${camera}/checks/${check.id}`, { check, version }).then(refresh)
      )
    } catch (error) {
      void message.error(problemWords(error))
    }
  }
  const openOnBench = async (): Promise<void> => {
    if (check.by.how === 'clip')
      return void navigate(
        `/bench/${camera}?clip=${check.by.clip}&detection=${detection.id}&frame=${verdict?.frame ?? 1}`
      )
    setMaking(true)
    try {
      const clip = await clipOf(camera, check)
      void navigate(
        `/bench/${camera}?clip=${clip.id}&detection=${detection.id}&frame=${Math.floor(moment * clip.fps + 1e-6) + 1}`
      )
    } catch (error) {
      void message.error(problemWords(error))
    } finally {
      setMaking(false)
    }
  }
  if (editing)
    return (
      <CheckEditor
        kept={kept}
        scene={scene}
        painted={held?.painted ?? false}
        site={site}
        detection={detection}
        onDone={() => onEdit(false)}
      />
    )
  return (
    <div className="check-panel">
      <header>
        <h2>{wordsOf(check.name)}</h2>
        <p className="quiet">
          {check.by.how === 'walk' && check.by.through === 'pictures'
            ? msg.walkRenderedPictures
            : byWords[check.by.how]}{' '}
          · {dateAndTime(check.at, site.site.timeZone)}
        </p>
      </header>
      {walk && scene && (
        <>
          <CheckStage
            scene={scene}
            walk={walk}
            detection={detection}
            time={Math.min(moment, walk.seconds)}
          />
          <div className="row">
            <span className="figures">{msg.s(Math.min(moment, walk.seconds).toFixed(1))}</span>
            <Slider
              className="grow"
              ariaLabelForHandle={msg.momentOfTheWalk}
              min={0}
              max={walk.seconds}
              step={0.1}
              value={Math.min(moment, walk.seconds)}
              onChange={setTime}
              tooltip={{ open: false }}
            />
          </div>
        </>
      )}
      {check.by.how === 'person' && <p className="person-words">{check.by.words}</p>}
      <Outcome check={check} last={last} result={result} />
      <div className="row check-actions">
        {check.by.how !== 'person' && (
          <Button
            type="primary"
            size="small"
            icon={<CaretRightOutlined aria-hidden />}
            disabled={running}
            onClick={onRun}
          >
            {msg.run}
          </Button>
        )}
        {check.by.how !== 'clip' && (
          <Button
            size="small"
            type={check.by.how === 'person' ? 'primary' : 'default'}
            onClick={() => void navigate(`/prove/walk?camera=${camera}&check=${check.id}`)}
          >
            {msg.walkItLive}
          </Button>
        )}
        <Button size="small" icon={<EditOutlined aria-hidden />} onClick={() => onEdit(true)}>
          {common.edit}
        </Button>
        {((walk && held?.painted) || check.by.how === 'clip') && (
          <Button size="small" loading={making} onClick={() => void openOnBench()}>
            {msg.onTheBench}
          </Button>
        )}
        <span className="grow" />
        <Button
          size="small"
          type="text"
          icon={<DeleteOutlined aria-hidden />}
          aria-label={msg.delete(wordsOf(check.name))}
          onClick={() => void remove()}
        />
      </div>
      {verdict && verdict.readings.length > 0 && (
        <LadderView
          ladder={{
            detection: detection.id,
            frame: verdict.frame,
            time: verdict.time,
            fired: verdict.seen.length > 0,
            readings: verdict.readings,
            sentence: verdict.sentence
          }}
          who={msg.thisWalk}
        />
      )}
      {verdict && verdict.effects.length > 0 && (
        <section className="effects" aria-label={msg.actions}>
          <h3>{msg.actions}</h3>
          <ul>
            {verdict.effects.map((e) => (
              <li key={e.endpoint} className={e.wrong ? 'is-failed' : ''}>
                {e.wrong ? <Failed /> : <Passed />} {e.name}:{' '}
                {wordsOf(e.wrong ?? (e.acts ? msg.ran : msg.didNotRunAs))}
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  )
}

function Outcome({
  check,
  last,
  result
}: {
  check: Check
  last: SavedCheck['last']
  result: ProofResultView | undefined
}): ReactNode {
  const state = !last ? 'never' : !last.current ? 'old' : last.passed ? 'passed' : 'failed'
  const { expect } = check
  return (
    <dl className={`outcome ${state}`}>
      <dt>{common.expected}</dt>
      <dd>
        {expectedWords(check)}
        {expect.what === 'trigger' && msg.fromToS(expect.from.toFixed(1), expect.to.toFixed(1))}
        {check.effects.length > 0 &&
          msg.actionsRanDidNot(
            check.effects.filter((e) => e.acts).length,
            check.effects.some((e) => !e.acts),
            check.effects.filter((e) => !e.acts).length
          )}
      </dd>
      <dt>{msg.result}</dt>
      <dd>
        {wordsOf(last ? last.sentence : msg.notRunYet)}
        {state === 'old' && <strong> {msg.settingsChangedSinceRun}</strong>}
        {result &&
          result.verdict.seen.length > 1 &&
          msg.triggers(
            result.verdict.seen.length,
            result.verdict.seen.map((t) => `${t.time.toFixed(1)} s`).join(', ')
          )}
      </dd>
    </dl>
  )
}

/**
 * The walk as a clip, painted and analysed like any other; made when it is not there yet.
 * @throws Error when it cannot be made
 */
async function clipOf(camera: string, check: Check): Promise<ClipView> {
  if (check.by.how !== 'walk') throw new Error(msg.thisCheckIsNoWalk)
  const name = msg.check(wordsOf(check.name)).slice(0, 120)
  const script = { id: 'check', name, ...check.by.walk }
  const made = await request<ClipView>(
    'POST',
    `/cameras/${encodeURIComponent(camera)}/made-clips`,
    { name, script, start: check.at }
  )
  for (;;) {
    const clip = await request<ClipView>('GET', `/clips/${made.id}`)
    if (clip.state === 'ready') return clip
    if (clip.state !== 'analysing')
      throw new Error(clip.error === null ? msg.theClipWasStopped : wordsOf(clip.error))
    await new Promise((resolve) => setTimeout(resolve, CLIP_WAIT_MS))
  }
}
