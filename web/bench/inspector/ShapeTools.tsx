import { common } from '../../../core/messages/en/common.ts'
import { shapeTools as msg } from '../../../core/messages/en/bench/inspector.ts'
import './inspector.css'
import {
  CopyOutlined,
  EyeInvisibleOutlined,
  EyeOutlined,
  LockOutlined,
  ScissorOutlined,
  SwapOutlined,
  UnlockOutlined
} from '@ant-design/icons'
import { Button, Dropdown, Tooltip } from 'antd'
import { memo, type ReactNode } from 'react'
import type { CameraSummary } from '../../../core/api.ts'
import type { ShapeActions } from '../shapes/useShapes.ts'
import type { ViewPrefs } from '../shapes/viewPrefs.ts'

/** What can be done with the selected shape beside dragging it. */
export const ShapeTools = memo(function ShapeTools({
  act,
  prefs,
  hasShape,
  detection,
  isLine,
  others,
  onCopyTo
}: {
  act: ShapeActions
  prefs: ViewPrefs
  hasShape: boolean
  detection: string | null
  isLine: boolean
  others: readonly CameraSummary[]
  onCopyTo: (camera: CameraSummary) => void
}): ReactNode {
  const tool = (label: string, key: string, icon: ReactNode, act: () => void): ReactNode => (
    <Tooltip
      title={
        <>
          {label} <kbd>{key}</kbd>
        </>
      }
    >
      <Button size="small" type="text" icon={icon} aria-label={label} onClick={act} />
    </Tooltip>
  )
  const hidden = detection !== null && prefs.hidden.has(detection)
  const locked = detection !== null && prefs.locked.has(detection)
  return (
    <div className="shape-tools" role="toolbar" aria-label={msg.shape}>
      {tool(common.duplicate, 'D', <CopyOutlined aria-hidden />, () => act.duplicate())}
      {isLine && tool(msg.reverseDirection, 'M', <SwapOutlined aria-hidden />, act.mirror)}
      {hasShape && tool(msg.splitAtTheVertex, 'X', <ScissorOutlined aria-hidden />, act.split)}
      {detection !== null && hasShape && (
        <>
          {tool(
            hidden ? msg.showItOnThePicture : msg.hideItOnThePicture,
            'H',
            hidden ? <EyeInvisibleOutlined aria-hidden /> : <EyeOutlined aria-hidden />,
            () => prefs.toggle('hidden', detection)
          )}
          {tool(
            locked ? msg.unlockTheShape : msg.lockTheShape,
            'K',
            locked ? <LockOutlined aria-hidden /> : <UnlockOutlined aria-hidden />,
            () => prefs.toggle('locked', detection)
          )}
        </>
      )}
      {detection !== null && others.length > 0 && (
        <Dropdown
          trigger={['click']}
          menu={{
            items: others.map(({ id, name }) => ({ key: id, label: name })),
            onClick: ({ key }) => onCopyTo(others.find(({ id }) => id === key)!)
          }}
        >
          <Button size="small" type="text">
            {msg.copyTo}
          </Button>
        </Dropdown>
      )}
    </div>
  )
})
