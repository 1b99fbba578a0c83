import { clipTime, timeOfDay } from '../../../core/messages/format.ts'
import { common } from '../../../core/messages/en/common.ts'
import { transport as msg } from '../../../core/messages/en/bench/timeline.ts'
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

/** Play, step and the moment on show. */
export const Transport = memo(function Transport({
  playhead,
  disabled,
  start,
  timeZone
}: {
  playhead: Playhead
  disabled: boolean
  /** The instant of the first frame, where the time of the day is shown; null: seconds are. */
  start: number | null
  timeZone: string
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
      <Tooltip title={key(msg.previousFrame, ',')}>
        <Button
          size="small"
          type="text"
          disabled={disabled}
          aria-label={msg.previousFrame}
          icon={<StepBackwardOutlined aria-hidden />}
          onClick={() => playhead.step(-1)}
        />
      </Tooltip>
      <Tooltip title={key(playing ? msg.pause : msg.play, common.space)}>
        <Button
          size="small"
          disabled={disabled}
          aria-label={playing ? msg.pause : msg.play}
          icon={playing ? <PauseOutlined aria-hidden /> : <CaretRightOutlined aria-hidden />}
          onClick={() => playhead.toggle()}
        />
      </Tooltip>
      <Tooltip title={key(msg.nextFrame, '.')}>
        <Button
          size="small"
          type="text"
          disabled={disabled}
          aria-label={msg.nextFrame}
          icon={<StepForwardOutlined aria-hidden />}
          onClick={() => playhead.step(1)}
        />
      </Tooltip>
      <span role="timer" className="moment figures" aria-label={msg.currentMoment}>
        {start === null ? clipTime(time) : timeOfDay(start + 1000 * time, timeZone)}
      </span>
    </div>
  )
})
