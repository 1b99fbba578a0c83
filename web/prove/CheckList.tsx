import { Button, Tooltip } from 'antd'
import type { ReactNode } from 'react'
import { ABOUT, type Check } from '../../core/formats/check.ts'
import type { Detection } from '../../core/formats/plan.ts'
import type { SavedCheck, NamedCheck, ProvingView } from '../../core/proving/views.ts'
import { aboutNames, byWords } from './words.ts'

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
          ? 'Working out what to check …'
          : show === 'all'
            ? 'Nothing is proposed for it, and nothing was added.'
            : show === 'failed'
              ? 'Everything that was run went as expected.'
              : 'Nothing is out of date.'}
      </p>
    )
  return (
    <>
      {view.checks.length > 0 && fresh.length > 0 && show === 'all' && (
        <Offer
          words={
            kept.length
              ? `${fresh.length} more proposed`
              : `${fresh.length} proposed, from its own settings`
          }
          onTake={() => onTake(fresh.map((p) => ({ camera, check: p.check.id })))}
          what="Keep them"
        />
      )}
      {changed.length > 0 && show === 'all' && (
        <Offer
          words={`${changed.length} would be proposed otherwise now, by the settings as they are`}
          onTake={() => onTake(changed.map((p) => ({ camera, check: p.check.id })))}
          what="Take the new ones"
        />
      )}
      <table className="check-table">
        <thead>
          <tr>
            <th scope="col">Gate</th>
            <th scope="col">Must let through</th>
            <th scope="col">Must not</th>
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
                  <p className="no-check">{gate.cannot[side]}</p>
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
  passed: { mark: '✓', words: 'as expected' },
  failed: { mark: '✕', words: 'not as expected' },
  old: { mark: '◌', words: 'out of date' },
  never: { mark: '○', words: 'never run' }
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
      <span>{check.name}</span>
      {check.by.how === 'walk' && check.by.through === 'pictures' && (
        <Tooltip title="Through painted pictures, analysed as any others">
          <small aria-label="through pictures">▦</small>
        </Tooltip>
      )}
      {check.by.how !== 'walk' && <small>{byWords[check.by.how]}</small>}
    </button>
  )
}

function Proposed({ check, onTake }: { check: Check; onTake: () => void }): ReactNode {
  return (
    <span className="check-row proposed">
      <span className="check-mark" role="img" aria-label="proposed">
        +
      </span>
      <span>{check.name}</span>
      <button
        type="button"
        className="link-button"
        aria-label={`Keep ${check.name}`}
        onClick={onTake}
      >
        Keep
      </button>
    </span>
  )
}
