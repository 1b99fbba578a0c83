import { messages } from '../../messages.ts'

export const words = messages({
  contactInput: 'Contact input'
})

export const editors = messages({
  input: 'Input',
  changeTheInput: 'Change the input',
  normallyOpenFiresWhenIt: 'Normally open: fires when it closes',
  normallyClosedFiresWhenIt: 'Normally closed: fires when it opens',
  changeTheContactsRest: 'Change the contact’s rest',
  debounce: 'Debounce',
  forHowLongItMust: 'For how long it must stay so.',
  changeTheDebounceTime: 'Change the debounce time'
})

export const sentence = messages({
  for: (debounceSeconds: string) => `for ${debounceSeconds}`
})
