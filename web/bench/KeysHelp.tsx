import { common } from '../../core/messages/en/common.ts'
import { keysHelp as msg } from '../../core/messages/en/bench/bench.ts'
import './bench.css'
import { Modal } from 'antd'
import type { ReactNode } from 'react'

const keys: [string, string][] = [
  ['L', msg.drawALineClickIts],
  ['Z', 'Draw a zone, in the same way; its kind is part of its sentence'],
  ['I', msg.drawAnIgnoreAreaIn],
  ['F', msg.sizeFramesOfTheSelected],
  ['Shift', msg.whileAVertexIsDrawn],
  ['Enter', 'Finish the shape; of motion: paint the cell on or off that the arrows have chosen'],
  ['Backspace', msg.takeBackTheLastVertex],
  [msg.esc, msg.leaveTheDrawingTheVertex],
  ['Tab', msg.nextVertexWithThePicture],
  [
    msg.arrows,
    'Nudge the vertex, or the whole shape; with Shift ten times as far. Of motion: go from cell to cell'
  ],
  [msg.del, msg.deleteTheVertexOrThe],
  ['V', 'Add a vertex after the chosen one; a double click on an outline adds one there'],
  ['Alt+click', msg.theNextOfTheShapes],
  ['[ ]', msg.theDetectionBeforeTheDetection],
  ['D', common.duplicate],
  ['M', msg.turnALinesDirectionOver],
  ['X', msg.cutTheShapeInTwo],
  ['H, K', 'Hide the detection on the picture; lock its shape'],
  [
    '+ − 0',
    'Nearer to the picture, farther, all of it; the wheel does the same. Ctrl and arrows, or the middle button, move it'
  ],
  [common.space, msg.playOrPause],
  [', .', msg.oneFrameBackOneFrame],
  ['T, N', 'Next trigger, next near miss of the selected detection; with Shift the one before'],
  [
    'Shift+drag',
    'On the time scale: a range that is played again and again; Ctrl and the wheel show a shorter stretch'
  ],
  ['Ctrl+Z', common.undo],
  ['Ctrl+Shift+Z', common.redo],
  ['?', msg.theseKeys]
]

export function KeysHelp({ open, onClose }: { open: boolean; onClose: () => void }): ReactNode {
  return (
    <Modal open={open} title={msg.keysOfTheBench} footer={null} onCancel={onClose}>
      <dl className="keys">
        {keys.map(([key, what]) => (
          <div key={key}>
            <dt>
              <kbd>{key}</kbd>
            </dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
    </Modal>
  )
}
