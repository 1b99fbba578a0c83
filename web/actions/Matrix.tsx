import type { Said } from '../../core/messages/said.ts'
import { wordsOf } from '../../core/messages/words.ts'
import { common } from '../../core/messages/en/common.ts'
import { matrix as msg } from '../../core/messages/en/actions/actions.ts'
import {
  memo,
  useRef,
  useState,
  type KeyboardEvent,
  type PointerEvent,
  type ReactNode
} from 'react'
import { block, sharePercent, type Crossing } from '../../core/actions/matrix.ts'
import type { Endpoint, OutputKind } from '../../core/formats/actions.ts'
import { keyOf } from '../sync/siteDocument.ts'
import { kindNames } from '../kinds/names.ts'
import { faceOf } from './kinds.ts'
import type { Placed } from '../sync/kinds.ts'
import { Failed, Passed } from '../words/signs.tsx'

/** A column: an endpoint, or an output of a device that nobody has set up. */
export type Column =
  | { id: string; name: string; endpoint: Endpoint; missing: Said | null }
  | { id: string; name: string; endpoint: null; kind: OutputKind }

export interface MatrixProps {
  rows: readonly Placed[]
  columns: readonly Column[]
  cameraName: (camera: string) => string
  crossing: (row: Placed, column: Column) => Crossing | null
  chosenRow: string | null
  chosenColumn: string | null
  onRow: (key: string) => void
  onColumn: (id: string) => void
  /** Crossings that become linked or not, as one step. */
  onLink: (crossings: { key: string; endpoint: string }[], linked: boolean) => void
}

type Cell = [row: number, column: number]

/** Detections down, actions across; in each cell whether it is linked, and when it can really run. */
export function Matrix({
  rows,
  columns,
  cameraName,
  crossing,
  chosenRow,
  chosenColumn,
  onRow,
  onColumn,
  onLink
}: MatrixProps): ReactNode {
  const grid = useRef<HTMLTableElement>(null)
  const [at, setAt] = useState<Cell>([0, 0])
  const [from, setFrom] = useState<Cell>([0, 0])
  /** Focus is being moved by a key: the block goes on from where it began. */
  const stepping = useRef(false)
  const dragging = useRef<{ linked: boolean; moved: boolean } | null>(null)
  const inBlock = (r: number, c: number): boolean => {
    const [[r0, c0], [r1, c1]] = [from, at]
    return (
      (from[0] !== at[0] || from[1] !== at[1]) &&
      r >= Math.min(r0, r1) &&
      r <= Math.max(r0, r1) &&
      c >= Math.min(c0, c1) &&
      c <= Math.max(c0, c1)
    )
  }
  const isLinked = ([r, c]: Cell): boolean =>
    rows[r] && columns[c] ? (crossing(rows[r], columns[c])?.linked ?? false) : false
  const set = (a: Cell, b: Cell, linked: boolean): void => {
    const crossings = block(rows, columns, a, b).flatMap(({ row, column }) =>
      column.endpoint ? [{ key: keyOf(row), endpoint: column.endpoint.id }] : []
    )
    if (crossings.length) onLink(crossings, linked)
  }
  const focus = ([r, c]: Cell): void =>
    grid.current?.querySelector<HTMLElement>(`[data-cell="${r} ${c}"]`)?.focus()
  const keys = (e: KeyboardEvent): void => {
    const step = (
      { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] } as Record<
        string,
        Cell
      >
    )[e.key]
    if (step) {
      e.preventDefault()
      const next: Cell = [
        Math.min(rows.length - 1, Math.max(0, at[0] + step[0])),
        Math.min(columns.length - 1, Math.max(0, at[1] + step[1]))
      ]
      setAt(next)
      if (!e.shiftKey) setFrom(next)
      // Two quick steps come before the first one is focused: each says by itself that it is one.
      requestAnimationFrame(() => {
        stepping.current = true
        focus(next)
        stepping.current = false
      })
    } else if (e.key === ' ' || e.key === 'Enter') {
      e.preventDefault()
      set(from, at, !isLinked(at))
      setFrom(at)
    } else if (e.key === 'Escape') setFrom(at)
  }
  const focused = (cell: Cell) => (): void => {
    if (stepping.current) return
    setAt(cell)
    setFrom(cell)
  }
  const press =
    (cell: Cell) =>
    (e: PointerEvent): void => {
      if (e.button !== 0) return
      ;(e.target as HTMLElement).releasePointerCapture?.(e.pointerId)
      if (e.shiftKey) {
        // The rest of the block becomes as its first crossing is.
        set(from, cell, isLinked(from))
        setAt(cell)
        return
      }
      setFrom(cell)
      setAt(cell)
      dragging.current = { linked: !isLinked(cell), moved: false }
    }
  const over = (cell: Cell) => (): void => {
    if (!dragging.current) return
    dragging.current.moved ||= cell[0] !== from[0] || cell[1] !== from[1]
    setAt(cell)
  }
  const release = (): void => {
    if (!dragging.current) return
    set(from, at, dragging.current.linked)
    dragging.current = null
    setFrom(at)
  }
  const groups = columns.map((column) =>
    column.endpoint ? faceOf(column.endpoint.kind).group : 'outputs'
  )
  return (
    <table
      ref={grid}
      className="matrix"
      role="grid"
      aria-label={msg.actionsOfDetections}
      onKeyDown={keys}
      onPointerUp={release}
      onPointerLeave={() => {
        if (dragging.current) release()
      }}
    >
      <thead>
        <tr>
          <td />
          {groups.map((group, i) =>
            i > 0 && groups[i - 1] === group ? null : (
              <th
                key={group}
                colSpan={groups.filter((g) => g === group).length}
                className="matrix-group"
                scope="colgroup"
              >
                {msg.groups[group]}
              </th>
            )
          )}
        </tr>
        <tr>
          <td />
          {columns.map((column) => (
            <th
              key={column.id}
              scope="col"
              className={`matrix-head${column.id === chosenColumn ? ' chosen' : ''}${column.endpoint ? '' : ' unset'}`}
            >
              <button
                type="button"
                aria-pressed={column.id === chosenColumn}
                onClick={() => onColumn(column.id)}
              >
                <span className="glyph">
                  {faceOf(column.endpoint ? column.endpoint.kind : column.kind).icon}
                </span>
                <span className="matrix-name">{column.name}</span>
                {column.endpoint === null && <span className="matrix-note">{msg.notSetUp}</span>}
                {column.endpoint && column.missing && (
                  <span className="matrix-note failed">
                    <Failed /> {wordsOf(column.missing)}
                  </span>
                )}
              </button>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, r) => {
          const first = r === 0 || rows[r - 1]!.camera !== row.camera
          const key = keyOf(row)
          return [
            first ? (
              <tr key={`camera ${row.camera}`} className="matrix-camera">
                <th scope="rowgroup" colSpan={columns.length + 1}>
                  {cameraName(row.camera)}
                </th>
              </tr>
            ) : null,
            <tr key={key} className={key === chosenRow ? 'chosen' : ''}>
              <th scope="row">
                <button type="button" aria-pressed={key === chosenRow} onClick={() => onRow(key)}>
                  <strong>{row.detection.name}</strong>
                  <span className="quiet">
                    {kindNames[row.detection.kind]}
                    {row.detection.enabled ? '' : common.off}
                  </span>
                </button>
              </th>
              {columns.map((column, c) => {
                const x = crossing(row, column)
                return x && column.endpoint ? (
                  <td key={column.id} className={inBlock(r, c) ? 'in-block' : ''}>
                    <CellButton
                      cell={`${r} ${c}`}
                      label={`${row.detection.name}, ${column.name}`}
                      linked={x.linked}
                      share={x.share}
                      never={x.never}
                      tabIndex={at[0] === r && at[1] === c ? 0 : -1}
                      onPointerDown={press([r, c])}
                      onPointerEnter={over([r, c])}
                      onFocus={focused([r, c])}
                    />
                  </td>
                ) : (
                  <td key={column.id} className="empty" />
                )
              })}
            </tr>
          ]
        })}
      </tbody>
    </table>
  )
}

interface CellProps extends Crossing {
  cell: string
  label: string
  tabIndex: number
  onPointerDown: (e: PointerEvent) => void
  onPointerEnter: () => void
  onFocus: () => void
}

const CellButton = memo(function CellButton({
  cell,
  label,
  linked,
  share,
  never,
  tabIndex,
  onPointerDown,
  onPointerEnter,
  onFocus
}: CellProps): ReactNode {
  const percent = share === null ? null : sharePercent(share)
  const kind = !linked
    ? 'unlinked'
    : percent === 100
      ? 'whole'
      : percent === null || percent === 0
        ? 'never'
        : 'part'
  const words = !linked
    ? msg.notLinked
    : never
      ? msg.linkedButNeverRuns(wordsOf(never))
      : percent === null
        ? msg.linkedAndTheDetectionIs
        : percent === 100
          ? msg.linkedInAllOfThe
          : percent === 0
            ? msg.linkedButOffFor
            : msg.linkedOnForOf(percent)
  return (
    <button
      type="button"
      data-cell={cell}
      aria-pressed={linked}
      aria-label={`${label}: ${words}`}
      title={words}
      tabIndex={tabIndex}
      className={`crossing ${kind}`}
      onPointerDown={onPointerDown}
      onPointerEnter={onPointerEnter}
      onFocus={onFocus}
    >
      {kind === 'whole' && <Passed />}
      {kind === 'never' && <Failed />}
      {kind === 'part' && (
        <>
          <i style={{ width: `${percent}%` }} />
          <span>{percent}%</span>
        </>
      )}
    </button>
  )
})
