import './bench.css'
import { Modal } from 'antd'
import type { ReactNode } from 'react'

const keys: [string, string][] = [
  [
    'L',
    'Draw a line: click its vertices, or move the cross with the arrows and set one with Space'
  ],
  ['Z', 'Draw a zone, in the same way; its kind is part of its sentence'],
  ['I', 'Draw an ignore area, in which nothing counts'],
  ['F', 'Size frames of the selected detection on the picture, or off it'],
  ['Shift', 'While a vertex is drawn or dragged: only in steps of 45°'],
  ['Enter', 'Finish the shape; of motion: paint the cell on or off that the arrows have chosen'],
  ['Backspace', 'Take back the last vertex while drawing'],
  ['Esc', 'Leave: the drawing, the vertex, the target, the detection'],
  ['Tab', 'Next vertex, with the picture in focus'],
  [
    'Arrows',
    'Nudge the vertex, or the whole shape; with Shift ten times as far. Of motion: go from cell to cell'
  ],
  ['Del', 'Delete the vertex, or the detection'],
  ['V', 'Add a vertex after the chosen one; a double click on an outline adds one there'],
  ['Alt+click', 'The next of the shapes that lie over one another'],
  ['[ ]', 'The detection before, the detection after'],
  ['D', 'Duplicate'],
  ['M', 'Turn a line’s direction over'],
  ['X', 'Cut the shape in two at the chosen vertex'],
  ['H, K', 'Hide the detection on the picture; lock its shape'],
  [
    '+ − 0',
    'Nearer to the picture, farther, all of it; the wheel does the same. Ctrl and arrows, or the middle button, move it'
  ],
  ['Space', 'Play or pause'],
  [', .', 'One frame back, one frame on'],
  ['T, N', 'Next trigger, next near miss of the selected detection; with Shift the one before'],
  [
    'Shift+drag',
    'On the time scale: a range that is played again and again; Ctrl and the wheel show a shorter stretch'
  ],
  ['Ctrl+Z', 'Undo'],
  ['Ctrl+Shift+Z', 'Redo'],
  ['?', 'These keys']
]

export function KeysHelp({ open, onClose }: { open: boolean; onClose: () => void }): ReactNode {
  return (
    <Modal open={open} title="Keys of the Bench" footer={null} onCancel={onClose}>
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
