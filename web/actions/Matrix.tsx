import type { Said } from '../../core/messages/said.ts'
import { wordsOf } from '../../core/messages/words.ts'
import { common } from '../../core/messages/en/common.ts'
import { matrix as msg } from '../../core/messages/en/actions/actions.ts'
import {
  memo,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type PointerEvent,
  type ReactNode
} from 'react'
import { block, sharePercent, type Crossing } from '../../core/actions/matrix.ts'
import type { Endpoint, OutputKind } from '../../core/formats/actions.ts'
import { keyOf } from '../sync/siteDocument.ts'
import { kindNames } from '../../core/kinds/names.ts'
import { faceOf } from './kinds.ts'
import { useStableAll } from '../stable.ts'
import { useLinesInSight } from './useLinesInSight.ts'
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
/** Rows above the detections: groups, and actions. */
const HEAD_ROWS = 2
/** Of a long matrix, in pixels; the style sheet has the same ones. */
const CAMERA_HEIGHT = 30
const ROW_HEIGHT = 46
const NAMES_WIDTH = 180
const CELL_WIDTH = 82

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
  /** A key has moved the cell, and focus follows; the block goes on from where it began. */
  const stepped = useRef(false)
  const dragging = useRef<{ linked: boolean; moved: boolean } | null>(null)
  /** The columns of a row that are in the block: from, to. */
  const blockIn = (r: number): string => {
    const [[r0, c0], [r1, c1]] = [from, at]
    const isBlock = r0 !== r1 || c0 !== c1
    return isBlock && r >= Math.min(r0, r1) && r <= Math.max(r0, r1)
      ? `${Math.min(c0, c1)} ${Math.max(c0, c1)}`
      : ''
  }
  const isLinked = ([r, c]: Cell): boolean =>
    rows[r] && columns[c] ? (crossing(rows[r], columns[c])?.linked ?? false) : false
  const set = (a: Cell, b: Cell, linked: boolean): void => {
    const crossings = block(rows, columns, a, b).flatMap(({ row, column }) =>
      column.endpoint ? [{ key: keyOf(row), endpoint: column.endpoint.id }] : []
    )
    if (crossings.length) onLink(crossings, linked)
  }
  const lines = useMemo(() => linesOf(rows), [rows])
  const lineOf = (r: number): number => lines.findIndex((l) => l.row === r && !l.ofCamera)
  const inSight = useLinesInSight(
    lines.length,
    (index) => (lines[index]!.ofCamera ? CAMERA_HEIGHT : ROW_HEIGHT),
    lineOf(at[0]),
    { count: columns.length, width: CELL_WIDTH, from: NAMES_WIDTH, keep: at[1] },
    grid
  )
  // As soon as its row is drawn: the row of the cell before may be gone by now, and the focus with it.
  useLayoutEffect(() => {
    if (!stepped.current) return
    grid.current?.querySelector<HTMLElement>(`[data-cell="${at.join(' ')}"]`)?.focus()
    stepped.current = false
  }, [at])
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
      if (next[0] !== at[0]) inSight.show(lineOf(next[0]))
      stepped.current = true
    } else if (e.key === ' ' || e.key === 'Enter') {
      e.preventDefault()
      set(from, at, !isLinked(at))
      setFrom(at)
    } else if (e.key === 'Escape') setFrom(at)
  }
  const focused = (cell: Cell): void => {
    if (stepped.current) return
    setAt(cell)
    setFrom(cell)
  }
  const press = (cell: Cell, e: PointerEvent): void => {
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
  const over = (cell: Cell): void => {
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
  const on = useStableAll<RowHandlers>({ press, over, focus: focused, row: onRow })
  const groups = columns.map((column) =>
    column.endpoint ? faceOf(column.endpoint.kind).group : 'outputs'
  )
  return (
    <table
      ref={grid}
      className={`matrix${inSight.isLong ? ' long' : ''}`}
      role="grid"
      aria-label={msg.actionsOfDetections}
      aria-rowcount={lines.length + HEAD_ROWS}
      aria-colcount={columns.length + 1}
      onKeyDown={keys}
      onPointerUp={release}
      onPointerLeave={() => {
        if (dragging.current) release()
      }}
    >
      <colgroup>
        <col className="matrix-names" />
        {columns.map(({ id }) => (
          <col key={id} className="matrix-cells" />
        ))}
      </colgroup>
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
        {/* One list: each line keeps its place in the page by its key, whatever comes into sight before it. */}
        {inSight.lines.flatMap(({ index, gap }) => {
          const line = lines[index]!
          const row = rows[line.row]!
          const r = line.row
          const key = keyOf(row)
          return [
            gap > 0 ? <Gap key={`gap ${index}`} height={gap} /> : null,
            line.ofCamera ? (
              <tr
                key={`camera ${row.camera}`}
                aria-rowindex={index + HEAD_ROWS + 1}
                className="matrix-camera"
              >
                <th scope="rowgroup" colSpan={columns.length + 1}>
                  {cameraName(row.camera)}
                </th>
              </tr>
            ) : (
              <DetectionRow
                key={key}
                index={index}
                row={row}
                r={r}
                columns={columns}
                firstColumn={inSight.columns[0]}
                endColumn={inSight.columns[1]}
                crossing={crossing}
                chosen={key === chosenRow}
                tabStop={at[0] === r ? at[1] : null}
                inBlock={blockIn(r)}
                on={on}
              />
            )
          ]
        })}
        {inSight.rest > 0 && <Gap height={inSight.rest} />}
      </tbody>
    </table>
  )
}

/** Room of lines that are out of sight. */
const Gap = ({ height }: { height: number }): ReactNode => (
  <tr aria-hidden="true" style={{ height }} />
)

/** The lines of the table: each camera's name, then its detections. */
const linesOf = (rows: readonly Placed[]): { row: number; ofCamera: boolean }[] =>
  rows.flatMap(({ camera }, row) =>
    row === 0 || rows[row - 1]!.camera !== camera
      ? [
          { row, ofCamera: true },
          { row, ofCamera: false }
        ]
      : [{ row, ofCamera: false }]
  )

interface RowHandlers {
  press: (cell: Cell, e: PointerEvent) => void
  over: (cell: Cell) => void
  focus: (cell: Cell) => void
  row: (key: string) => void
}

/** One detection with its cells; drawn again only when something of it changes, as there may be a thousand. */
const DetectionRow = memo(function DetectionRow({
  index,
  row,
  r,
  columns,
  firstColumn,
  endColumn,
  crossing,
  chosen,
  tabStop,
  inBlock,
  on
}: {
  index: number
  row: Placed
  r: number
  columns: readonly Column[]
  /** Those that are drawn: from, and the one after the last. */
  firstColumn: number
  endColumn: number
  crossing: MatrixProps['crossing']
  chosen: boolean
  /** The column of the cell that the keyboard is at; null: in another row. */
  tabStop: number | null
  /** Columns that are in the block, as `from to`; empty: none. */
  inBlock: string
  on: RowHandlers
}): ReactNode {
  const [first, last] = inBlock ? inBlock.split(' ').map(Number) : [1, 0]
  const { detection } = row
  return (
    <tr aria-rowindex={index + HEAD_ROWS + 1} className={chosen ? 'chosen' : ''}>
      <th scope="row">
        <button type="button" aria-pressed={chosen} onClick={() => on.row(keyOf(row))}>
          <strong>{detection.name}</strong>
          <span className="quiet">
            {kindNames[detection.kind]}
            {detection.enabled ? '' : common.off}
          </span>
        </button>
      </th>
      {firstColumn > 0 && <td colSpan={firstColumn} aria-hidden="true" />}
      {columns.slice(firstColumn, endColumn).map((column, i) => {
        const c = firstColumn + i
        const x = crossing(row, column)
        return x && column.endpoint ? (
          <td
            key={column.id}
            aria-colindex={c + 2}
            className={c >= first! && c <= last! ? 'in-block' : ''}
          >
            <CellButton
              r={r}
              c={c}
              label={`${detection.name}, ${column.name}`}
              linked={x.linked}
              share={x.share}
              never={x.never}
              tabIndex={tabStop === c ? 0 : -1}
              on={on}
            />
          </td>
        ) : (
          <td key={column.id} aria-colindex={c + 2} className="empty" />
        )
      })}
      {endColumn < columns.length && <td colSpan={columns.length - endColumn} aria-hidden="true" />}
    </tr>
  )
})

interface CellProps extends Crossing {
  r: number
  c: number
  label: string
  tabIndex: number
  on: RowHandlers
}

const CellButton = memo(function CellButton({
  r,
  c,
  label,
  linked,
  share,
  never,
  tabIndex,
  on
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
      data-cell={`${r} ${c}`}
      aria-pressed={linked}
      aria-label={`${label}: ${words}`}
      title={words}
      tabIndex={tabIndex}
      className={`crossing ${kind}`}
      onPointerDown={(e) => on.press([r, c], e)}
      onPointerEnter={() => on.over([r, c])}
      onFocus={() => on.focus([r, c])}
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
