import { SoundOutlined } from '@ant-design/icons'
import { Button, Select } from 'antd'
import { POPUP_SOUNDS, type EndpointOf } from '../../../core/formats/actions.ts'
import { playSound } from '../../alarms/sounds.ts'
import { Field } from '../fields.tsx'
import type { EndpointFace } from './kind.ts'

const soundWords: Record<(typeof POPUP_SOUNDS)[number], string> = {
  none: 'silent',
  chime: 'a chime',
  alarm: 'an alarm tone'
}

export const popup: EndpointFace<EndpointOf<'popup'>> = {
  name: 'Pop-up',
  glyph: '▣',
  group: 'Messages',
  Fields: ({ endpoint: e, keep }) => {
    return (
      <Field label="With">
        <span className="row">
          <Select
            size="small"
            aria-label="With"
            value={e.sound}
            options={POPUP_SOUNDS.map((value) => ({ value, label: soundWords[value] }))}
            onChange={(sound) => keep({ sound })}
          />
          <Button
            size="small"
            aria-label="Hear it"
            icon={<SoundOutlined />}
            disabled={e.sound === 'none'}
            onClick={() => playSound(e.sound)}
          />
        </span>
      </Field>
    )
  },
  start: () => ({ sound: 'chime' }),
  test: 'Test it',
  simulated: null
}
