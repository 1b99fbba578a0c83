import { wordsOf } from '../../core/messages/words.ts'
import { common } from '../../core/messages/en/common.ts'
import { checkList as msg } from '../../core/messages/en/prove/prove.ts'
import { Button, Tooltip } from 'antd'
import type { ReactNode } from 'react'
import { ABOUT, type Check } from '../../core/formats/check.ts'
import type { Detection } from '../../core/formats/plan.ts'
import type { SavedCheck, NamedCheck, ProvingView } from '../../core/proving/views.ts'
import { aboutNames, byWords } from './words.ts'
import { PictureOutlined, PlusOutlined } from '@ant-design/icons'
import { Failed, NotRun, OutOfDate, Passed } from '../words/signs.tsx'

interface Props {
  view: ProvingView
  camera: string
  detection: Detection
  show: 'all' | 'failed' | 'outdated'
  selected: string | null
  onSelect: (check: string) => void
  onTake: (checks: NamedCheck[]) => void
}

type Row =
  | { kept: SavedCheck; proposal?: undefined }
  | { kept?: undefined; proposal: ProvingView['proposals'][number] }
const checkOf = (row: Row): Check => row.kept?.check ?? row.proposal!.check

/** The checks of a detection gate by gate, what lets through beside what does not. */
export function CheckList({
  view,
  camera,
  detection,
  show,
  selected,
  onSelect,
  onTake
}: Props): ReactNode {
  const kept = view.checks.filter((c) => c.camera === camera && c.check.detection === detection.id)
  const proposals = view.proposals.filter(
    (p) => p.camera === camera && p.check.detection === detection.id
  )
  const gates =
    view.coverage.find((c) => c.camera === camera && c.detection === detection.id)?.gates ?? []
  const shown = (c: SavedCheck): boolean =>
    show === 'all' ||
    (show === 'failed'
      ? c.last?.current === true && !c.last.passed
      : c.last !== null && !c.last.current)
  const rows: Row[] = [
    ...kept.filter(shown).map((k): Row => ({ kept: k })),
    ...(show === 'all'
      ? proposals.filter((p) => p.replaces === null).map((proposal): Row => ({ proposal }))
      : [])
  ]
  const changed = proposals.filter((p) => p.replaces !== null)
  const fresh = proposals.filter((p) => p.replaces === null)
  if (!rows.length && !gates.length)
    return (
      <p className="quiet prove-none">
        {view.proposing
          ? msg.workingOutWhatToCheck
          : show === 'all'
            ? msg.noChecksAddOne
            : show === 'failed'
              ? msg.noFailedChecks
              : msg.nothingIsOutOfDate}
      </p>
    )
  return (
    <>
      {view.checks.length > 0 && fresh.length > 0 && show === 'all' && (
        <Offer
          words={
            kept.length ? msg.moreProposed(fresh.length) : msg.proposedFromItsOwn(fresh.length)
          }
          onTake={() => onTake(fresh.map((p) => ({ camera, check: p.check.id })))}
          what={msg.addThem}
        />
      )}
      {changed.length > 0 && show === 'all' && (
        <Offer
          words={msg.theSettings(changed.length)}
          onTake={() => onTake(changed.map((p) => ({ camera, check: p.check.id })))}
          what={msg.update}
        />
      )}
      <table className="check-table">
        <thead>
          <tr>
            <th scope="col">{msg.condition}</th>
            <th scope="col">{msg.mustTrigger}</th>
            <th scope="col">{common.mustNotTrigger}</th>
          </tr>
        </thead>
        <tbody>
          {ABOUT.map((about) => {
            const own = rows.filter((row) => checkOf(row).about === about)
            const gate = gates.find((g) => g.about === about)
            if (!own.length && (show !== 'all' || !gate)) return null
            const cell = (side: 'inside' | 'outside'): ReactNode => {
              const here = own.filter(
                (row) =>
                  (checkOf(row).side ??
                    (checkOf(row).expect.what === 'silence' ? 'outside' : 'inside')) === side
              )
              if (!here.length)
                return show === 'all' && gate?.cannot[side] ? (
                  <p className="no-check">{wordsOf(gate.cannot[side])}</p>
                ) : null
              return (
                <ul>
                  {here.map((row) => (
                    <li key={checkOf(row).id}>
                      {row.kept ? (
                        <CheckButton kept={row.kept} selected={selected} onSelect={onSelect} />
                      ) : (
                        <Proposed
                          check={row.proposal.check}
                          onTake={() => onTake([{ camera, check: row.proposal.check.id }])}
                        />
                      )}
                    </li>
                  ))}
                </ul>
              )
            }
            return (
              <tr key={about}>
                <th scope="row">{aboutNames[about]}</th>
                <td>{cell('inside')}</td>
                <td>{cell('outside')}</td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </>
  )
}

function Offer({
  words,
  what,
  onTake
}: {
  words: string
  what: string
  onTake: () => void
}): ReactNode {
  return (
    <p className="check-offer">
      {words}
      <Button size="small" onClick={onTake}>
        {what}
      </Button>
    </p>
  )
}

const marks = {
  passed: { mark: <Passed />, words: msg.passed },
  failed: { mark: <Failed />, words: msg.failed },
  old: { mark: <OutOfDate />, words: msg.outOfDate },
  never: { mark: <NotRun />, words: msg.notRun }
} as const

function CheckButton({
  kept,
  selected,
  onSelect
}: {
  kept: SavedCheck
  selected: string | null
  onSelect: (check: string) => void
}): ReactNode {
  const { check, last } = kept
  const state = !last ? 'never' : !last.current ? 'old' : last.passed ? 'passed' : 'failed'
  return (
    <button
      type="button"
      className={`check-row ${state}${selected === check.id ? ' chosen' : ''}`}
      aria-pressed={selected === check.id}
      onClick={() => onSelect(check.id)}
    >
      <span className="check-mark" role="img" aria-label={marks[state].words}>
        {marks[state].mark}
      </span>
      <span>{wordsOf(check.name)}</span>
      {check.by.how === 'walk' && check.by.through === 'pictures' && (
        <Tooltip title={msg.renderedPicturesAnalysedLike}>
          <PictureOutlined aria-label={msg.renderedPictures} />
        </Tooltip>
      )}
      {check.by.how !== 'walk' && <small>{byWords[check.by.how]}</small>}
    </button>
  )
}

function Proposed({ check, onTake }: { check: Check; onTake: () => void }): ReactNode {
  return (
    <span className="check-row proposed">
      <span className="check-mark" role="img" aria-label={msg.proposed}>
        <PlusOutlined aria-hidden />
      </span>
      <span>{wordsOf(check.name)}</span>
      <button
        type="button"
        className="link-button"
        aria-label={msg.add(wordsOf(check.name))}
        onClick={onTake}
      >
        {common.add}
      </button>
    </span>
  )
}
