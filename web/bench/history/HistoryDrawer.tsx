import { said } from '../../../core/messages/said.ts'
import { wordsOf } from '../../../core/messages/words.ts'
import { dateAndSecond } from '../../../core/messages/format.ts'
import { problemWords } from '../../../core/messages/errorWords.ts'
import { historyDrawer as msg } from '../../../core/messages/en/bench/history.ts'
import './history.css'
import { Button, Drawer, Select } from 'antd'
import { useMemo, useState, type ReactNode } from 'react'
import {
  canonical,
  differencesBetween,
  type CameraState,
  type EditEntry
} from '../../../core/history/states.ts'
import { useHistory, useStateAt } from '../../api/queries.ts'
import type { BenchDocument, DocumentState } from '../document.ts'

const NOW = 'now'

/** Who changed what on this camera, any two states beside each other, and a way back to one. */
export function HistoryDrawer({
  open,
  camera,
  timeZone,
  document,
  state,
  onClose
}: {
  open: boolean
  camera: string
  timeZone: string
  document: BenchDocument
  state: DocumentState
  onClose: () => void
}): ReactNode {
  return (
    <Drawer
      open={open}
      onClose={onClose}
      size={640}
      title={msg.historyOfThisCamera}
      destroyOnHidden
    >
      <History camera={camera} timeZone={timeZone} document={document} state={state} />
    </Drawer>
  )
}

function History({
  camera,
  timeZone,
  document,
  state
}: {
  camera: string
  timeZone: string
  document: BenchDocument
  state: DocumentState
}): ReactNode {
  const [older, setOlder] = useState<number[]>([])
  const [from, setFrom] = useState<number | null>(null)
  const [to, setTo] = useState<number | typeof NOW>(NOW)
  const newest = useHistory(camera, true, null)
  const entries = newest.data?.entries ?? []
  const before = useStateAt(camera, from)
  const after = useStateAt(camera, to === NOW ? null : to)
  const now: CameraState = useMemo(
    () => ({
      detections: state.detections,
      schedules: state.schedules,
      actions: state.actions,
      scene: state.scene
    }),
    [state]
  )
  const other = to === NOW ? now : after.data
  const differences = useMemo(
    () => before.data && other && differencesBetween(before.data, other),
    [before.data, other]
  )
  const momentOf = (entry: EditEntry): string =>
    entry.at > 0 ? dateAndSecond(entry.at, timeZone) : msg.atTheStart
  const goBack = (): void => {
    const entry = entries.find(({ id }) => id === from)
    if (before.data)
      document.goTo(before.data, said('edits.goBackTo', entry && wordsOf(entry.label)))
  }
  return (
    <div className="history">
      <div className="history-columns">
        <section aria-label={msg.edits}>
          <ol>
            {entries.map((entry) => (
              <HistoryItem
                key={entry.id}
                entry={entry}
                moment={momentOf(entry)}
                chosen={entry.id === from}
                onChoose={() => setFrom(entry.id === from ? null : entry.id)}
              />
            ))}
            {older.map((id) => (
              <OlderEntries
                key={id}
                camera={camera}
                before={id}
                moment={momentOf}
                from={from}
                onChoose={setFrom}
                onMore={(next) => setOlder([...older, next])}
                last={id === older[older.length - 1]}
              />
            ))}
          </ol>
          {newest.data?.more && older.length === 0 && (
            <Button size="small" onClick={() => setOlder([entries[entries.length - 1]!.id])}>
              {msg.earlierEdits}
            </Button>
          )}
          {newest.error && <p className="failed">{problemWords(newest.error)}</p>}
        </section>
        <section aria-label={msg.comparison} aria-live="polite">
          {from === null ? (
            <p className="quiet">{msg.chooseAnEditToSee}</p>
          ) : (
            <>
              <label className="field">
                <span>{msg.compareItWith}</span>
                <Select
                  value={to}
                  onChange={setTo}
                  options={[
                    { value: NOW, label: msg.now },
                    ...entries
                      .filter(({ id }) => id !== from)
                      .map((e) => ({ value: e.id, label: `${wordsOf(e.label)}, ${momentOf(e)}` }))
                  ]}
                />
              </label>
              <Differences differences={differences} />
              {before.data && canonical(before.data.schedules) !== canonical(now.schedules) && (
                <p className="quiet">{msg.hoursBelongToTheSite}</p>
              )}
              <Button
                onClick={goBack}
                disabled={!before.data || differencesBetween(before.data, now).length === 0}
              >
                {msg.goBackToThisState}
              </Button>
            </>
          )}
        </section>
      </div>
    </div>
  )
}

function HistoryItem({
  entry,
  moment,
  chosen,
  onChoose
}: {
  entry: EditEntry
  moment: string
  chosen: boolean
  onChoose: () => void
}): ReactNode {
  return (
    <li>
      <button
        type="button"
        className={chosen ? 'history-entry chosen' : 'history-entry'}
        aria-pressed={chosen}
        onClick={onChoose}
      >
        <span>{wordsOf(entry.label)}</span>
        <span className="quiet">
          {entry.by}, <span className="figures">{moment}</span>
        </span>
      </button>
    </li>
  )
}

function OlderEntries({
  camera,
  before,
  moment,
  from,
  onChoose,
  onMore,
  last
}: {
  camera: string
  before: number
  moment: (e: EditEntry) => string
  from: number | null
  onChoose: (id: number | null) => void
  onMore: (id: number) => void
  last: boolean
}): ReactNode {
  const { data } = useHistory(camera, true, before)
  return (
    <>
      {data?.entries.map((entry) => (
        <HistoryItem
          key={entry.id}
          entry={entry}
          moment={moment(entry)}
          chosen={entry.id === from}
          onChoose={() => onChoose(entry.id)}
        />
      ))}
      {data?.more && last && (
        <li>
          <Button size="small" onClick={() => onMore(data.entries[data.entries.length - 1]!.id)}>
            {msg.earlierEdits}
          </Button>
        </li>
      )}
    </>
  )
}

const changeWords = { added: msg.isNew, deleted: msg.wasDeleted, changed: '' }

function Differences({
  differences
}: {
  differences: ReturnType<typeof differencesBetween> | undefined
}): ReactNode {
  if (!differences) return <p className="quiet">{msg.comparing}</p>
  if (!differences.length) return <p className="quiet">{msg.noDifference}</p>
  return (
    <ul className="history-differences">
      {differences.map(({ name, change, settings }) => (
        <li key={`${name} ${change}`}>
          <strong>{name ?? msg.theScene}</strong> {changeWords[change]}
          {settings.map(({ setting, before, after }) => (
            <span key={wordsOf(setting)}>
              {wordsOf(setting)}: {wordsOf(before)} → {wordsOf(after)}
            </span>
          ))}
        </li>
      ))}
    </ul>
  )
}
