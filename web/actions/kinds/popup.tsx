import { common } from '../../../core/messages/en/common.ts'
import { popup as msg } from '../../../core/messages/en/actions/kinds.ts'
import { SoundOutlined, DesktopOutlined } from '@ant-design/icons'
import { Button, Select } from 'antd'
import { POPUP_SOUNDS, type EndpointOf } from '../../../core/formats/actions.ts'
import { playSound } from '../../alarms/sounds.ts'
import { Field } from '../fields.tsx'
import type { EndpointFace } from './kind.ts'

const soundWords: Record<(typeof POPUP_SOUNDS)[number], string> = {
  none: msg.silent,
  chime: msg.aChime,
  alarm: msg.anAlarmTone
}

export const popup: EndpointFace<EndpointOf<'popup'>> = {
  name: msg.popUp,
  icon: <DesktopOutlined aria-hidden />,
  group: 'messages',
  Fields: ({ endpoint: e, keep }) => {
    return (
      <Field label={msg.with}>
        <span className="row">
          <Select
            size="small"
            aria-label={msg.with}
            value={e.sound}
            options={POPUP_SOUNDS.map((value) => ({ value, label: soundWords[value] }))}
            onChange={(sound) => keep({ sound })}
          />
          <Button
            size="small"
            aria-label={msg.play}
            icon={<SoundOutlined aria-hidden />}
            disabled={e.sound === 'none'}
            onClick={() => playSound(e.sound)}
          />
        </span>
      </Field>
    )
  },
  start: () => ({ sound: 'chime' }),
  test: common.testIt,
  simulated: null
}
