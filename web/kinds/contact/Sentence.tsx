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
        what="Contact"
        editor={(close) => (
          <ContactEditor detection={d} document={document} inputs={props.inputs} close={close} />
        )}
      >{`${inputName(props.inputs, d.input)} ${contactVerb(d)}`}</Chip>{' '}
      for {secondsWords(d.debounceSeconds)}
    </>
  )
}
