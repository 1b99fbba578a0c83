import { Select } from 'antd'
import type { EndpointOf } from '../../../core/formats/actions.ts'
import { Field } from '../fields.tsx'
import { Lines, PictureFields } from './sharedFields.tsx'
import { whoOptions } from '../whoOptions.ts'
import type { EndpointFace } from './kind.ts'

export const email: EndpointFace<EndpointOf<'email'>> = {
  name: 'E-mail',
  glyph: '✉',
  group: 'Messages',
  Fields: ({ endpoint: e, state, keep }) => {
    return (
      <>
        <Lines
          key={`to ${e.recipients.join()}`}
          label="To"
          values={e.recipients}
          placeholder="duty@example.org"
          onKeep={(recipients) => keep({ recipients }, `Recipients of ${e.name}`)}
        />
        <Field label="And to people of the site">
          <Select
            size="small"
            mode="multiple"
            aria-label="And to people of the site"
            placeholder="nobody"
            value={e.people}
            options={whoOptions(state)}
            onChange={(people: string[]) => keep({ people }, `Recipients of ${e.name}`)}
          />
        </Field>
        <PictureFields endpoint={e} keep={keep} />
      </>
    )
  },
  start: () => ({ recipients: [] }),
  test: 'Send a test mail',
  simulated: '/mailbox'
}
