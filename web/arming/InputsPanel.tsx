import { common } from '../../core/messages/en/common.ts'
import { type Said, said } from '../../core/messages/said.ts'
import { problemWords } from '../../core/messages/errorWords.ts'
import { inputsPanel as msg } from '../../core/messages/en/arming.ts'
import { useQueryClient } from '@tanstack/react-query'
import { App, Button, Input, Select } from 'antd'
import { useState, type ReactNode } from 'react'
import type { SiteActionsView, SiteInput } from '../../core/api.ts'
import { request } from '../api/client.ts'
import { newId } from '../sync/newId.ts'
import { noteHeaders } from '../api/note.ts'

const NONE = ''

/**
 * The contacts of the site: an alarm panel's set state, a door; each with the device that has it,
 * and what it is now.
 */
export function InputsPanel({ view }: { view: SiteActionsView }): ReactNode {
  const queries = useQueryClient()
  const { message } = App.useApp()
  const [name, setName] = useState('')
  const keep = async (inputs: SiteInput[], label: Said): Promise<void> => {
    try {
      await request('PUT', '/inputs', { inputs }, { headers: noteHeaders(label) })
      await queries.invalidateQueries()
    } catch (error) {
      void message.error(problemWords(error))
    }
  }
  const { inputs } = view.site
  return (
    <section className="arming-section" aria-label={msg.contacts}>
      <h2>{msg.contacts}</h2>
      {inputs.length === 0 && <p className="quiet">{msg.noContactsAddAn}</p>}
      <ul className="arming-inputs">
        {inputs.map((input) => {
          const now = view.inputs[input.id]
          return (
            <li key={input.id}>
              <strong>{input.name}</strong>
              <span className={now === null || now === undefined ? 'failed' : 'quiet'}>
                {now === null || now === undefined
                  ? input.device
                    ? msg.stateUnknown
                    : msg.notOnAnyDevice
                  : now
                    ? msg.set
                    : msg.notSet}
              </span>
              <Select
                size="small"
                aria-label={msg.contactOf(input.name)}
                value={input.device ? `${input.device} ${input.token}` : NONE}
                options={[
                  { value: NONE, label: msg.noDevice },
                  ...view.contacts.map((c) => ({
                    value: `${c.device} ${c.token}`,
                    label: `${c.deviceName}, ${c.token}`
                  }))
                ]}
                onChange={(value: string) => {
                  const [device, token] = value.split(' ')
                  void keep(
                    inputs.map((i) =>
                      i.id === input.id
                        ? { id: i.id, name: i.name, ...(value !== NONE && { device, token }) }
                        : i
                    ),
                    said('edits.contactOf', input.name)
                  )
                }}
              />
            </li>
          )
        })}
      </ul>
      <div className="row">
        <Input
          size="small"
          aria-label={msg.nameOfANewContact}
          placeholder={msg.newContact}
          value={name}
          maxLength={80}
          onChange={(e) => setName(e.target.value)}
        />
        <Button
          size="small"
          disabled={!name.trim()}
          onClick={() =>
            void keep(
              [...inputs, { id: newId('contact'), name: name.trim() }],
              said('edits.newContact', name.trim())
            ).then(() => setName(''))
          }
        >
          {common.add}
        </Button>
      </div>
    </section>
  )
}
