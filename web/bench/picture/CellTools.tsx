import { said } from '../../../core/messages/said.ts'
import { common } from '../../../core/messages/en/common.ts'
import { cellTools as msg } from '../../../core/messages/en/bench/picture.ts'
import './picture.css'
import { Button, Segmented } from 'antd'
import { useEffect, useRef, type ReactNode } from 'react'
import type { ClassMotionDetection, MotionDetection } from '../../../core/formats/plan.ts'
import type { BenchDocument } from '../document.ts'
import { everyCell, isEmpty, type Brush } from './cells.ts'

/** How cells are painted on the picture; over its lower edge while a motion detection is selected. */
export function CellTools({
  detection,
  document,
  brush,
  onBrush
}: {
  detection: MotionDetection | ClassMotionDetection
  document: BenchDocument
  brush: Brush
  onBrush: (brush: Brush) => void
}): ReactNode {
  const empty = isEmpty(detection.cells)
  const kept = useRef(detection)
  useEffect(() => {
    if (!empty) kept.current = detection
  }, [detection, empty])
  // A detection without any cell is not kept: who leaves it so gets back what was there.
  useEffect(
    () => () => {
      const now = document.detection(kept.current.id)
      if (!now || !('cells' in now) || !isEmpty(now.cells)) return
      document.show(kept.current)
      document.commitDrag(said('edits.clearTheCells'))
    },
    [document]
  )
  const clear = (): void => {
    document.show({ ...detection, cells: everyCell(detection.cells, false) })
    onBrush({ ...brush, on: true })
  }
  return (
    <div className="cell-tools" role="toolbar" aria-label={msg.cells}>
      <Segmented
        aria-label={msg.cells}
        size="small"
        value={brush.on ? 'on' : 'off'}
        onChange={(v) => onBrush({ ...brush, on: v === 'on' })}
        options={[
          { value: 'on', label: msg.paintOn },
          { value: 'off', label: msg.paintOff }
        ]}
      />
      <Segmented
        aria-label={msg.brush}
        size="small"
        value={brush.shape}
        onChange={(shape) => onBrush({ ...brush, shape: shape as Brush['shape'] })}
        options={[
          { value: 'free', label: msg.brush },
          { value: 'rectangle', label: msg.rectangle }
        ]}
      />
      <Button
        size="small"
        onClick={() =>
          document.edit(
            { ...detection, cells: everyCell(detection.cells, true) },
            said('edits.paintAllCellsOf', detection.name)
          )
        }
      >
        {common.all}
      </Button>
      <Button size="small" onClick={clear}>
        {common.none}
      </Button>
      {empty && <span>{msg.paintTheCellsWhereMotion}</span>}
    </div>
  )
}
