import type { ContactDetection } from '../../../core/kinds/contact/schema.ts'
import { inputName, type KindWords } from '../words.ts'

export const contactVerb = ({ normally }: ContactDetection): string =>
  normally === 'open' ? 'closes' : 'opens'

export const contactWords: KindWords<ContactDetection> = {
  name: 'Contact input',
  rail: (d, inputs) => [`${inputName(inputs, d.input)} ${contactVerb(d)}, `, ''],
  start: { name: 'Contact', settings: (inputs) => ({ input: inputs[0]?.id ?? 'input' }) }
}
