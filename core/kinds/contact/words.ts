import { common } from '../../messages/en/common.ts'
import { settingSeconds } from '../../messages/format.ts'
import { sentence, words as msg } from '../../messages/en/kinds/contact.ts'
import type { ContactDetection } from './schema.ts'
import { filledIn, inputName, type KindWords } from '../words.ts'

export const contactVerb = ({ normally }: ContactDetection): string =>
  normally === 'open' ? msg.closes : msg.opens

export const contactWords: KindWords<ContactDetection> = {
  name: msg.contactInput,
  rail: (d, inputs) => [`${inputName(inputs, d.input)} ${contactVerb(d)}, `, ''],
  what: (d, inputs) =>
    filledIn(sentence.contactFor(settingSeconds(d.debounceSeconds)), {
      name: d.name,
      contact: `${inputName(inputs, d.input)} ${contactVerb(d)}`
    }),
  start: { name: common.contact, settings: (inputs) => ({ input: inputs[0]?.id ?? 'input' }) }
}
