import { Radio } from 'antd'
import type { ReactNode } from 'react'
import type { LineDetection } from '../../../core/kinds/line/schema.ts'
import { SavedText, tryEdit, type EditorProps } from '../editors.tsx'
import { sideNames } from './words.ts'

/** Which crossings count, and what the two sides are called. */
export function DirectionEditor({
  detection: line,
  document
}: EditorProps<LineDetection>): ReactNode {
  const { left, right } = sideNames(line)
  const keep = (which: 'left' | 'right') => (text: string) => {
    const sides = { ...line.sides, [which]: text }
    if (!text.trim()) delete sides[which]
    return tryEdit(document, { ...line, sides }, `Name the ${which} side`)
  }
  return (
    <>
      <Radio.Group
        vertical
        value={line.direction}
        onChange={(e) =>
          document.edit(
            { ...line, direction: e.target.value as LineDetection['direction'] },
            'Change the direction'
          )
        }
        options={[
          { value: 'leftToRight', label: `${left} → ${right}` },
          { value: 'rightToLeft', label: `${right} → ${left}` },
          { value: 'both', label: 'Either way' }
        ]}
      />
      <SavedText
        label="Left side"
        value={line.sides?.left ?? ''}
        placeholder={left}
        onKeep={keep('left')}
      />
      <SavedText
        label="Right side"
        value={line.sides?.right ?? ''}
        placeholder={right}
        onKeep={keep('right')}
      />
      <p className="quiet">
        Left and right as seen by someone who walks the line from its letter to its end.
      </p>
    </>
  )
}
