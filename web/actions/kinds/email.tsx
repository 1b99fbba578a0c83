import { said } from '../../../core/messages/said.ts'
import { email as msg } from '../../../core/messages/en/actions/kinds.ts'
import { MailOutlined } from '@ant-design/icons'
import { Select } from 'antd'
import type { EndpointOf } from '../../../core/formats/actions.ts'
import { Field } from '../fields.tsx'
import { Lines, PictureFields } from './sharedFields.tsx'
import { whoOptions } from '../whoOptions.ts'
import type { EndpointFace } from './kind.ts'

export const email: EndpointFace<EndpointOf<'email'>> = {
  name: msg.eMail,
  icon: <MailOutlined aria-hidden />,
  group: 'messages',
  Fields: ({ endpoint: e, state, keep }) => {
    return (
      <>
        <Lines
          key={`to ${e.recipients.join()}`}
          label={msg.to}
          values={e.recipients}
          placeholder={msg.dutyExampleOrg}
          onKeep={(recipients) => keep({ recipients }, said('edits.recipientsOf', e.name))}
        />
        <Field label={msg.andToPeopleOfThe}>
          <Select
            size="small"
            mode="multiple"
            aria-label={msg.andToPeopleOfThe}
            placeholder={msg.nobody}
            value={e.people}
            options={whoOptions(state)}
            onChange={(people: string[]) => keep({ people }, said('edits.recipientsOf', e.name))}
          />
        </Field>
        <PictureFields endpoint={e} keep={keep} />
      </>
    )
  },
  start: () => ({ recipients: [] }),
  test: msg.sendATestMail,
  simulated: '/mailbox'
}
