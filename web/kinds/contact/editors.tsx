import { Radio, Select } from 'antd'
import type { ReactNode } from 'react'
import type { SiteInput } from '../../../core/api.ts'
import type { ContactDetection } from '../../../core/kinds/contact/schema.ts'
import { SecondsEditor, type EditorProps } from '../editors.tsx'

export function ContactEditor({
  detection,
  document,
  inputs
}: EditorProps<ContactDetection> & { inputs: readonly SiteInput[] }): ReactNode {
  return (
    <>
      <label className="field">
        <span>Input</span>
        <Select
          value={detection.input}
          options={inputs.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={(input) => document.edit({ ...detection, input }, 'Change the input')}
          getPopupContainer={(element) => element.parentElement!}
        />
      </label>
      <Radio.Group
        vertical
        value={detection.normally}
        options={[
          { value: 'open', label: 'Normally open: fires when it closes' },
          { value: 'closed', label: 'Normally closed: fires when it opens' }
        ]}
        onChange={(e) =>
          document.edit(
            { ...detection, normally: e.target.value as ContactDetection['normally'] },
            'Change the contact’s rest'
          )
        }
      />
      <SecondsEditor
        label="Debounce"
        value={detection.debounceSeconds}
        max={60}
        help="For how long it must stay so."
        onChange={(debounceSeconds) =>
          document.edit({ ...detection, debounceSeconds }, 'Change the debounce time')
        }
      />
    </>
  )
}
