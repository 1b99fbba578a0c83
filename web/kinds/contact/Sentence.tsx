import { settingSeconds } from '../../../core/messages/format.ts'
import { common } from '../../../core/messages/en/common.ts'
import { sentence as msg } from '../../../core/messages/en/kinds/contact.ts'
import type { ContactDetection } from '../../../core/kinds/contact/schema.ts'
import { Rich } from '../../words/Rich.tsx'
import { Chip } from '../Chip.tsx'
import { NameChip } from '../chips.tsx'
import type { KindSentence } from '../sentence.ts'
import { inputName } from '../../../core/kinds/words.ts'
import { contactVerb } from '../../../core/kinds/contact/words.ts'
import { ContactEditor } from '../chipEditors.ts'

export const contactSentence: KindSentence<ContactDetection> = {
  What: ({ detection: d, document, inputs }) => (
    <Rich
      text={msg.contactFor(settingSeconds(d.debounceSeconds))}
      parts={{
        name: <NameChip detection={d} document={document} />,
        contact: (
          <Chip
            what={common.contact}
            editor={(close) => (
              <ContactEditor detection={d} document={document} inputs={inputs} close={close} />
            )}
          >{`${inputName(inputs, d.input)} ${contactVerb(d)}`}</Chip>
        )
      }}
    />
  )
}
