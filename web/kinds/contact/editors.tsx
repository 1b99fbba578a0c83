import { said } from '../../../core/messages/said.ts'
import { editors as msg } from '../../../core/messages/en/kinds/contact.ts'
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
        <span>{msg.input}</span>
        <Select
          value={detection.input}
          options={inputs.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={(input) => document.edit({ ...detection, input }, said('edits.changeTheInput'))}
          getPopupContainer={(element) => element.parentElement!}
        />
      </label>
      <Radio.Group
        vertical
        value={detection.normally}
        options={[
          { value: 'open', label: msg.normallyOpen },
          { value: 'closed', label: msg.normallyClosed }
        ]}
        onChange={(e) =>
          document.edit(
            { ...detection, normally: e.target.value as ContactDetection['normally'] },
            said('edits.changeTheContactsRest')
          )
        }
      />
      <SecondsEditor
        label={msg.debounce}
        value={detection.debounceSeconds}
        max={60}
        help={msg.howLong}
        onChange={(debounceSeconds) =>
          document.edit({ ...detection, debounceSeconds }, said('edits.changeTheDebounceTime'))
        }
      />
    </>
  )
}
