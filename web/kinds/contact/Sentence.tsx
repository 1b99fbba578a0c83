import { common } from '../../../core/messages/en/common.ts'
import { sentence as msg } from '../../../core/messages/en/kinds/contact.ts'
import type { ReactNode } from 'react'
import type { ContactDetection } from '../../../core/kinds/contact/schema.ts'
import { Chip } from '../Chip.tsx'
import { NameChip } from '../chips.tsx'
import type { SentenceOf } from '../sentence.ts'
import { inputName, secondsWords } from '../words.ts'
import { ContactEditor } from './editors.tsx'
import { contactVerb } from './words.ts'

export function ContactSentence(props: SentenceOf<ContactDetection>): ReactNode {
  const { detection: d, document } = props
  return (
    <>
      <NameChip detection={d} document={document} />:{' '}
      <Chip
        what={common.contact}
        editor={(close) => (
          <ContactEditor detection={d} document={document} inputs={props.inputs} close={close} />
        )}
      >{`${inputName(props.inputs, d.input)} ${contactVerb(d)}`}</Chip>{' '}
      {msg.for(secondsWords(d.debounceSeconds))}
    </>
  )
}
