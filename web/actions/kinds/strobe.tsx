import { Radio } from 'antd'
import { STROBE_PATTERNS, type EndpointOf } from '../../../core/formats/actions.ts'
import { Field, NumberField } from '../fields.tsx'
import type { EndpointFace } from './kind.ts'

export const strobe: EndpointFace<EndpointOf<'strobe'>> = {
  name: 'Strobe',
  glyph: '✺',
  group: 'Outputs',
  Fields: ({ endpoint: e, keep }) => {
    return (
      <>
        <NumberField
          label="Flashes for"
          unit="s"
          value={e.seconds}
          help="1 to 60 s"
          onKeep={(seconds) => keep({ seconds })}
        />
        <Field label="How">
          <Radio.Group
            size="small"
            optionType="button"
            aria-label="How it flashes"
            value={e.pattern}
            options={STROBE_PATTERNS.map((value) => ({ value, label: value }))}
            onChange={(x) => keep({ pattern: x.target.value })}
          />
        </Field>
      </>
    )
  },
  start: () => ({ seconds: 10, pattern: 'fast' }),
  test: 'Test it',
  simulated: '/outputs'
}
