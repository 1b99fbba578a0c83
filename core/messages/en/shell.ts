import { messages } from '../messages.ts'

export const boundary = messages({
  thisPageHasFailed: 'This page has failed',
  theFaultIsInWardoptic: (error: string) =>
    `The fault is in Wardoptic, not in what you did: ${error}. Your edits are saved.`,
  reload: 'Reload',
  thisPartHasFailed: 'This part has failed.',
  tryAgain: 'Try again'
})

export const places = messages({
  handover: 'Handover',
  theRecordOfTheFinished:
    'The record of the finished job will be here: what was sent, what was proven, what the client signs.',
  untilThenThePlanOf: 'Until then, the plan of a camera can be exported on the Bench',
  site: 'Site',
  devices: 'Devices',
  bench: 'Bench',
  arming: 'Arming',
  actions: 'Actions',
  prove: 'Prove',
  watch: 'Watch'
})

export const emptyPlace = messages({
  goToTheBench: 'Go to the Bench'
})

export const serverNote = messages({
  whatYouSeeMayBe: 'What you see may be out of date, and changes are not saved until it is back.'
})

export const topBar = messages({
  places: 'Places',
  mailbox: 'Mailbox',
  nightTheme: 'Night theme',
  dayTheme: 'Day theme',
  useTheNightTheme: 'Use the night theme',
  useTheDayTheme: 'Use the day theme'
})
