import { wholePercent } from '../../core/messages/format.ts'
import { said } from '../../core/messages/said.ts'
import { wordsOf } from '../../core/messages/words.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { common } from '../../core/messages/en/common.ts'
import { provePlace as msg } from '../../core/messages/en/prove/prove.ts'
import './prove.css'
import {
  ArrowDownOutlined,
  ArrowUpOutlined,
  CaretRightOutlined,
  PlusOutlined
} from '@ant-design/icons'
import { useQueryClient } from '@tanstack/react-query'
import { Alert, App, Button, Progress, Segmented } from 'antd'
import type { ReactNode } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import type { SiteActionsView } from '../../core/api.ts'
import type {
  SavedCheck,
  NamedCheck,
  ProofRunView,
  ProvingView,
  Turn
} from '../../core/proving/views.ts'
import { request } from '../api/client.ts'
import { benchOf } from '../api/queries.ts'
import { noteHeaders } from '../api/note.ts'
import { EmptyPlace } from '../shell/EmptyPlace.tsx'
import { useSiteActions } from '../sync/useSiteDocument.ts'
import { CheckList } from './CheckList.tsx'
import { CheckPanel } from './CheckPanel.tsx'
import { DetectionRail } from './DetectionRail.tsx'
import { newCheck } from './newCheck.ts'
import { useProving, useRefresh } from './useProving.ts'
import { Failed } from '../words/signs.tsx'

type Show = 'all' | 'failed' | 'outdated'

/**
 * The checks: expected against seen, with the coverage of every gate; run them; each result with
 * the moment that matters.
 */
export function ProvePlace(): ReactNode {
  const proving = useProving()
  const site = useSiteActions()
  const queries = useQueryClient()
  const [address, setAddress] = useSearchParams()
  const refresh = useRefresh()
  const navigate = useNavigate()
  const { message } = App.useApp()
  if (proving.error && !proving.data)
    return <Alert className="notice" type="error" showIcon title={problemWords(proving.error)} />
  if (!proving.data || !site.data) return <p className="waiting">{common.loading}</p>
  const view = proving.data
  const detections = site.data.detections.filter(
    ({ detection }) => detection.enabled && !detection.parked
  )
  const chosen =
    detections.find(
      (d) => d.camera === address.get('camera') && d.detection.id === address.get('detection')
    ) ?? detections.at(0)
  if (!chosen) return <EmptyPlace name={msg.noChecksYet} what={msg.drawADetectionOn} on="bench" />
  const show = (address.get('show') ?? 'all') as Show
  const selected =
    view.checks.find((c) => c.camera === chosen.camera && c.check.id === address.get('check')) ??
    null
  const go = (change: Record<string, string | null>): void => {
    const next = new URLSearchParams(address)
    for (const [key, value] of Object.entries(change)) {
      if (value === null) next.delete(key)
      else next.set(key, value)
    }
    setAddress(next, { replace: 'check' in change })
  }
  const act = async (work: () => Promise<unknown>): Promise<void> => {
    try {
      await work()
    } catch (error) {
      void message.error(problemWords(error))
    } finally {
      await refresh()
    }
  }
  const run = (checks?: NamedCheck[]): Promise<void> =>
    act(() =>
      request('POST', '/proving/runs', checks ? { checks } : {}, {
        headers: noteHeaders(said('edits.runChecks'))
      })
    )
  const take = (checks?: NamedCheck[]): Promise<void> =>
    act(() => request('POST', '/proving/take', checks ? { checks } : {}))
  const add = (): Promise<void> =>
    act(async () => {
      const { clips } = await queries.query(benchOf(chosen.camera))
      const check = newCheck(
        chosen.detection,
        view.scenes[chosen.camera] ?? null,
        clips.find((clip) => clip.state === 'ready') ?? null,
        view.checks.filter((c) => c.camera === chosen.camera).map((c) => c.check.id)
      )
      await request('PUT', `/cameras/${chosen.camera}/checks/${check.id}`, {
        check,
        version: 0
      })
      await refresh()
      go({ check: check.id, edit: '1' })
    })
  const running = view.run?.state === 'running'
  return (
    <main className="prove-place">
      <header className="prove-head">
        <h1>{msg.checks}</h1>
        <Numbers view={view} />
        <span className="grow" />
        {view.run && <RunState run={view.run} act={act} />}
        <Button
          onClick={() =>
            void navigate(`/prove/walk?camera=${chosen.camera}&detection=${chosen.detection.id}`)
          }
        >
          {msg.walkLive}
        </Button>
        {!running && (
          <Button
            type="primary"
            icon={<CaretRightOutlined aria-hidden />}
            disabled={!view.checks.some((c) => c.check.by.how !== 'person')}
            onClick={() => void run()}
          >
            {msg.runAll}
          </Button>
        )}
      </header>
      <div className="prove-body">
        <DetectionRail
          view={view}
          detections={detections}
          chosen={chosen}
          onChoose={(camera, detection) => go({ camera, detection, check: null, edit: null })}
        />
        <section className="prove-middle" aria-label={msg.checksOf(chosen.detection.name)}>
          {!view.checks.length && (
            <Alert
              type="info"
              showIcon={false}
              title={
                view.proposing
                  ? msg.workingOutWhatToCheck
                  : msg.checksAreProposedFrom(view.proposals.length)
              }
              description={msg.eachConditionScheduleAnd}
              action={
                <Button type="primary" disabled={view.proposing > 0} onClick={() => void take()}>
                  {msg.addAll(view.proposals.length || '')}
                </Button>
              }
            />
          )}
          <div className="prove-tools">
            <h2>{chosen.detection.name}</h2>
            <Segmented
              aria-label={msg.checks}
              size="small"
              value={show}
              onChange={(value) => go({ show: value === 'all' ? null : value })}
              options={[
                { value: 'all', label: common.all },
                { value: 'failed', label: msg.notAsExpected },
                { value: 'outdated', label: msg.outOfDate }
              ]}
            />
            <span className="grow" />
            <Button size="small" icon={<PlusOutlined aria-hidden />} onClick={() => void add()}>
              {msg.addCheck}
            </Button>
            <Button
              size="small"
              icon={<CaretRightOutlined aria-hidden />}
              disabled={running || !own(view, chosen).length}
              onClick={() => void run(own(view, chosen))}
            >
              {msg.runThese}
            </Button>
          </div>
          <CheckList
            view={view}
            camera={chosen.camera}
            detection={chosen.detection}
            show={show}
            selected={selected?.check.id ?? null}
            onSelect={(check) => go({ check, edit: null })}
            onTake={(checks) => void take(checks)}
          />
          {view.run && (view.run.better.length > 0 || view.run.worse.length > 0) && (
            <Limiter
              run={view.run}
              onSelect={(t) =>
                go({
                  camera: t.camera,
                  detection:
                    view.checks.find((c) => c.camera === t.camera && c.check.id === t.check)?.check
                      .detection ?? null,
                  check: t.check,
                  edit: null
                })
              }
            />
          )}
        </section>
        <aside className="prove-side" aria-label={msg.check}>
          {selected ? (
            <CheckPanel
              key={`${selected.camera} ${selected.check.id}`}
              kept={selected}
              view={view}
              site={site.data}
              detection={chosen.detection}
              editing={address.get('edit') !== null}
              onEdit={(on) => go({ edit: on ? '1' : null })}
              onRun={() => void run([{ camera: selected.camera, check: selected.check.id }])}
              running={running}
            />
          ) : (
            <NothingChosen
              view={view}
              site={site.data}
              onSelect={(c) =>
                go({
                  camera: c.camera,
                  detection: c.check.detection,
                  check: c.check.id,
                  edit: null
                })
              }
            />
          )}
        </aside>
      </div>
    </main>
  )
}

const own = (
  view: ProvingView,
  { camera, detection }: { camera: string; detection: { id: string } }
): NamedCheck[] =>
  view.checks
    .filter(
      (c) =>
        c.camera === camera && c.check.detection === detection.id && c.check.by.how !== 'person'
    )
    .map((c) => ({ camera, check: c.check.id }))

function Numbers({ view }: { view: ProvingView }): ReactNode {
  const current = view.checks.filter((c) => c.last?.current)
  const passed = current.filter((c) => c.last!.passed).length
  const outdated = view.checks.filter((c) => c.last && !c.last.current).length
  if (!view.checks.length) return null
  return (
    <p className="prove-numbers">
      <span>
        <b className="figures">{view.checks.length}</b> {msg.checks2}
      </span>
      <span>
        <b className="figures">{passed}</b> {msg.passed}
      </span>
      {current.length > passed && (
        <span className="is-failed">
          <b className="figures">{current.length - passed}</b> {msg.failed}
        </span>
      )}
      {outdated > 0 && (
        <span>
          <b className="figures">{outdated}</b> {msg.outOfDate2}
        </span>
      )}
      {view.totals && (
        <span className="quiet" title={msg.recallPrecisionAndF1}>
          {msg.foundOfExpectedOf(
            wholePercent(view.totals.recall),
            wholePercent(view.totals.precision),
            view.totals.f1.toFixed(2)
          )}
        </span>
      )}
    </p>
  )
}

/** While no check is selected: the failed checks of the whole site. */
function NothingChosen({
  view,
  site,
  onSelect
}: {
  view: ProvingView
  site: SiteActionsView
  onSelect: (kept: SavedCheck) => void
}): ReactNode {
  const failed = view.checks.filter((c) => c.last?.current && !c.last.passed)
  const nameOf = ({ camera, check }: SavedCheck): string =>
    site.detections.find((d) => d.camera === camera && d.detection.id === check.detection)
      ?.detection.name ?? check.detection
  return (
    <>
      {failed.length > 0 && (
        <section className="prove-failed" aria-label={msg.notAsExpected}>
          <h2>{msg.notAsExpected}</h2>
          <ul>
            {failed.map((c) => (
              <li key={`${c.camera} ${c.check.id}`}>
                <button type="button" className="check-row failed" onClick={() => onSelect(c)}>
                  <span className="check-mark">
                    <Failed />
                  </span>
                  <span>
                    {nameOf(c)}: {wordsOf(c.check.name)}
                    <span className="quiet"> {wordsOf(c.last!.sentence)}</span>
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
      <p className="quiet">{msg.selectACheckTo}</p>
    </>
  )
}

function RunState({
  run,
  act
}: {
  run: ProofRunView
  act: (work: () => Promise<unknown>) => Promise<void>
}): ReactNode {
  if (run.state === 'finished')
    return (
      <span className="quiet">
        {msg.lastRunS(((run.endedAt! - run.startedAt) / 1000).toFixed(1))}
      </span>
    )
  return (
    <span className="prove-run">
      <Progress
        percent={Math.round((100 * run.done) / run.asked)}
        size={[120, 8]}
        showInfo={false}
        strokeColor="var(--accent)"
        aria-label={msg.checksRun}
      />
      <span role="status">
        {msg.of(run.done, run.asked)}
        {run.state === 'stopped' && msg.stopped}
      </span>
      {run.state === 'running' ? (
        <Button
          size="small"
          onClick={() => void act(() => request('POST', `/proving/runs/${run.id}/stop`))}
        >
          {common.stop}
        </Button>
      ) : (
        <Button
          size="small"
          onClick={() => void act(() => request('POST', `/proving/runs/${run.id}/go-on`))}
        >
          {msg.goOn}
        </Button>
      )}
    </span>
  )
}

/** Results that differ from the time before, and the changes in between. */
function Limiter({
  run,
  onSelect
}: {
  run: ProofRunView
  onSelect: (turn: Turn) => void
}): ReactNode {
  const list = (turns: Turn[], words: string, mark: ReactNode): ReactNode =>
    turns.length > 0 && (
      <section aria-label={words}>
        <h3>
          {mark} {words}
        </h3>
        <ul>
          {turns.map((t) => (
            <li key={`${t.camera} ${t.check}`}>
              <button type="button" className="link-button" onClick={() => onSelect(t)}>
                {wordsOf(t.name)}
              </button>
              <span className="quiet">
                {t.since.length
                  ? msg.sinceBy(
                      wordsOf(t.since[0]!.label),
                      t.since[0]!.by,
                      t.since.length,
                      t.since.length - 1
                    )
                  : msg.withoutAChangeOf}
              </span>
            </li>
          ))}
        </ul>
      </section>
    )
  return (
    <div className="turns">
      {list(run.worse, msg.newlyFailed, <ArrowDownOutlined aria-hidden />)}
      {list(run.better, msg.newlyPassed, <ArrowUpOutlined aria-hidden />)}
    </div>
  )
}
