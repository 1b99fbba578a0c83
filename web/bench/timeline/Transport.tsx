import './timeline.css'
import {
  CaretRightOutlined,
  PauseOutlined,
  StepBackwardOutlined,
  StepForwardOutlined
} from '@ant-design/icons'
import { Button, Tooltip } from 'antd'
import { memo, type ReactNode } from 'react'
import { usePlaying, useTime, type Playhead } from '../playhead.ts'
import { clipTime } from '../../kinds/words.ts'

/** Play, step and the moment on show. */
export const Transport = memo(function Transport({
  playhead,
  disabled
}: {
  playhead: Playhead
  disabled: boolean
}): ReactNode {
  const playing = usePlaying(playhead)
  const time = useTime(playhead)
  const key = (text: string, k: string): ReactNode => (
    <>
      {text} <kbd>{k}</kbd>
    </>
  )
  return (
    <div className="transport">
      <Tooltip title={key('One frame back', ',')}>
        <Button
          size="small"
          type="text"
          disabled={disabled}
          aria-label="One frame back"
          icon={<StepBackwardOutlined />}
          onClick={() => playhead.step(-1)}
        />
      </Tooltip>
      <Tooltip title={key(playing ? 'Pause' : 'Play', 'Space')}>
        <Button
          size="small"
          disabled={disabled}
          aria-label={playing ? 'Pause' : 'Play'}
          icon={playing ? <PauseOutlined /> : <CaretRightOutlined />}
          onClick={() => playhead.toggle()}
        />
      </Tooltip>
      <Tooltip title={key('One frame on', '.')}>
        <Button
          size="small"
          type="text"
          disabled={disabled}
          aria-label="One frame on"
          icon={<StepForwardOutlined />}
          onClick={() => playhead.step(1)}
        />
      </Tooltip>
      <span role="timer" className="moment figures" aria-label="Moment on show">
        {clipTime(time)}
      </span>
    </div>
  )
})
