import { said } from '../../../core/messages/said.ts'
import { directionEditor as msg } from '../../../core/messages/en/kinds/line.ts'
import { Radio } from 'antd'
import type { ReactNode } from 'react'
import type { LineDetection } from '../../../core/kinds/line/schema.ts'
import { SavedText, tryEdit, type EditorProps } from '../editors.tsx'
import { sideNames } from '../../../core/kinds/line/words.ts'

/** Which crossings count, and what the two sides are called. */
export function DirectionEditor({
  detection: line,
  document
}: EditorProps<LineDetection>): ReactNode {
  const { left, right } = sideNames(line)
  const keep = (which: 'left' | 'right') => (text: string) => {
    const sides = { ...line.sides, [which]: text }
    if (!text.trim()) delete sides[which]
    return tryEdit(document, { ...line, sides }, said('edits.nameTheSide', which))
  }
  return (
    <>
      <Radio.Group
        vertical
        value={line.direction}
        onChange={(e) =>
          document.edit(
            { ...line, direction: e.target.value as LineDetection['direction'] },
            said('edits.changeTheDirection')
          )
        }
        options={[
          { value: 'leftToRight', label: `${left} → ${right}` },
          { value: 'rightToLeft', label: `${right} → ${left}` },
          { value: 'both', label: msg.eitherDirection }
        ]}
      />
      <SavedText
        label={msg.leftSide}
        value={line.sides?.left ?? ''}
        placeholder={left}
        onKeep={keep('left')}
      />
      <SavedText
        label={msg.rightSide}
        value={line.sides?.right ?? ''}
        placeholder={right}
        onKeep={keep('right')}
      />
      <p className="quiet">{msg.asSeen}</p>
    </>
  )
}
