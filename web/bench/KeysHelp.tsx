import { common } from '../../core/messages/en/common.ts'
import { keysHelp as msg } from '../../core/messages/en/bench/bench.ts'
import './bench.css'
import { Modal } from 'antd'
import type { ReactNode } from 'react'

const keys: [string, string][] = [
  ['L', msg.drawALineClickIts],
  ['Z', msg.drawAZoneIn],
  ['I', msg.drawAnIgnoreAreaIn],
  ['F', msg.sizeFramesOfTheSelected],
  [msg.shift, msg.whileDrawingOrDragging],
  [msg.enter, msg.finish],
  [msg.backspace, msg.takeBackTheLastVertex],
  [msg.esc, msg.leaveTheDrawingTheVertex],
  [msg.tab, msg.nextVertexWithThePicture],
  [msg.arrows, msg.nudge],
  [msg.del, msg.deleteTheVertexOrThe],
  ['V', msg.addVertex],
  [msg.altClick, msg.nextOfSeveralOverlapping],
  ['[ ]', msg.previousNextDetection],
  ['D', common.duplicate],
  ['M', msg.reverseALinesDirection],
  ['X', msg.splitTheShapeAt],
  ['H, K', msg.hideLock],
  ['P', msg.fills],
  ['+ − 0', msg.zoom],
  [common.space, msg.playOrPause],
  [', .', msg.previousNextFrame],
  ['T, N', msg.nextTrigger],
  [msg.shiftDrag, msg.loop],
  [msg.ctrlZ, common.undo],
  [msg.ctrlShiftZ, common.redo],
  ['?', msg.keyboardShortcuts]
]

export function KeysHelp({ open, onClose }: { open: boolean; onClose: () => void }): ReactNode {
  return (
    <Modal open={open} title={msg.keyboardShortcuts} footer={null} onCancel={onClose}>
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
