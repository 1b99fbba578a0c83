import { common } from '../../../core/messages/en/common.ts'
import { words as msg } from '../../../core/messages/en/kinds/contact.ts'
import type { ContactDetection } from '../../../core/kinds/contact/schema.ts'
import { inputName, type KindWords } from '../words.ts'

export const contactVerb = ({ normally }: ContactDetection): string =>
  normally === 'open' ? msg.closes : msg.opens

export const contactWords: KindWords<ContactDetection> = {
  name: msg.contactInput,
  rail: (d, inputs) => [`${inputName(inputs, d.input)} ${contactVerb(d)}, `, ''],
  start: { name: common.contact, settings: (inputs) => ({ input: inputs[0]?.id ?? 'input' }) }
}
