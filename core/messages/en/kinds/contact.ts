import { messages } from '../../messages.ts'

export const words = messages({
  contactInput: 'Contact input',
  closes: 'closes',
  opens: 'opens'
})

export const editors = messages({
  input: 'Input',
  normallyOpen: 'Normally open: triggers when it closes',
  normallyClosed: 'Normally closed: triggers when it opens',
  debounce: 'Debounce time',
  howLong: 'How long it must stay that way.'
})

export const sentence = messages({
  contactFor: (time: string) => `{name}: {contact} for ${time}`
})
